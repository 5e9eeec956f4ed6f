package card

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"
)

// StepChange is what a person has changed of a step of the guide, or a step of her own. ID is that of the
// step.
type StepChange struct {
	ID string `json:"id"`
	// Own says that the step is the person's own.
	Own bool `json:"own,omitempty"`
	// Title and Does are in place of what the guide says; "" leaves that as it is.
	Title string `json:"title,omitempty"`
	Does  string `json:"does,omitempty"`
	// Out leaves the step out.
	Out bool `json:"out,omitempty"`
	// After is the step that it comes after, "start" for the beginning, "" where it comes by itself.
	After string `json:"after,omitempty"`
	// Into is the step that it is done together with; "" for none.
	Into string `json:"into,omitempty"`
}

// AtStart is the place of a step before all others.
const AtStart = "start"

// maxSteps bounds what is changed of a guide.
const maxSteps = 300

var stepName = regexp.MustCompile(`^[a-z][A-Za-z0-9-]{0,60}$`)

// check refuses what is no change of a step. The error is a *Refusal.
func (k StepChange) check() error {
	for _, id := range []string{k.ID, k.After, k.Into} {
		if id != "" && !stepName.MatchString(id) || k.ID == "" {
			return Refuse("id", "There is no step “%s”.", id)
		}
	}
	if k.ID == k.After || k.ID == k.Into {
		return Refuse("after", "A step cannot come after itself.")
	}
	if k.Own && strings.TrimSpace(k.Title) == "" {
		return Refuse("title", "Say what is done in the step.")
	}
	if utf8.RuneCountInString(k.Title) > 120 || strings.ContainsFunc(k.Title, func(r rune) bool { return r < ' ' }) {
		return Refuse("title", "What is done has at most 120 letters, on one line.")
	}
	if utf8.RuneCountInString(k.Does) > 1000 || strings.ContainsFunc(k.Does, func(r rune) bool { return r < ' ' && r != '\n' }) {
		return Refuse("does", "How it is done has at most 1000 letters.")
	}
	return nil
}

func (c *Card) checkSteps() error {
	if len(c.Steps) > maxSteps {
		return Refuse("steps", "At most %d steps are changed.", maxSteps)
	}
	seen := map[string]bool{}
	for _, k := range c.Steps {
		if err := k.check(); err != nil {
			return err
		}
		if seen[k.ID] {
			return Refuse("id", "The step “%s” is changed twice.", k.ID)
		}
		seen[k.ID] = true
	}
	return nil
}

// ChangeStep changes a step of the guide, in place of what was changed of it before; one of a person's own
// without an id is added. What changes nothing leaves the step as the guide has it.
type ChangeStep struct {
	Step StepChange `json:"step"`
}

// Label implements Command.
func (k ChangeStep) Label() string {
	switch {
	case k.Step.Own && k.Step.ID == "":
		return "Add a step"
	case k.Step.Out:
		return "Leave a step out"
	}
	return "Change a step"
}

// Apply implements Command.
func (k ChangeStep) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		s := k.Step
		if s.Own && s.ID == "" {
			s.ID = fmt.Sprintf("own-%d", c.NextID)
			c.NextID++
		}
		c.Steps = slices.Clone(c.Steps)
		i := slices.IndexFunc(c.Steps, func(o StepChange) bool { return o.ID == s.ID })
		nothing := s == StepChange{ID: s.ID} || s.Own && s.Out
		switch {
		case i >= 0 && nothing:
			c.Steps = slices.Delete(c.Steps, i, i+1)
		case i >= 0:
			c.Steps[i] = s
		case !nothing:
			c.Steps = append(c.Steps, s)
		}
		if len(c.Steps) == 0 {
			c.Steps = nil
		}
		return nil
	})
}
