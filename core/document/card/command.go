package card

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"math"
	"slices"
)

// Command is one change to a card. Apply leaves the card it is given alone and
// returns the changed one, or a *Refusal for the person.
type Command interface {
	Apply(Card) (Card, error)
	// Label names the change for undo: "Move 2 items".
	Label() string
}

// Commands makes an empty command for each name of the protocol, where a
// command is an object with its name in "do" and its fields beside it.
var Commands = map[string]func() Command{
	"renameCard":     func() Command { return &RenameCard{} },
	"leaveSo":        func() Command { return &LeaveSo{} },
	"changeStep":     func() Command { return &ChangeStep{} },
	"placeItems":     func() Command { return &PlaceItems{} },
	"duplicateItems": func() Command { return &DuplicateItems{} },
	"removeItems":    func() Command { return &RemoveItems{} },
	"moveItems":      func() Command { return &MoveItems{} },
	"resizeItems":    func() Command { return &ResizeItems{} },
	"turnItems":      func() Command { return &TurnItems{} },
	"nameItem":       func() Command { return &NameItem{} },
	"setMade":        func() Command { return &SetMade{} },
	"recolour":       func() Command { return &Recolour{} },
	"setLook":        func() Command { return &SetLook{} },
	"setEdging":      func() Command { return &SetEdging{} },
	"pasteLook":      func() Command { return &PasteLook{} },
	"setFill":        func() Command { return &SetFill{} },
	"setEnds":        func() Command { return &SetEnds{} },
	"setForm":        func() Command { return &SetForm{} },
	"setWords":       func() Command { return &SetWords{} },
	"setText":        func() Command { return &SetText{} },
	"styleLetters":   func() Command { return &StyleLetters{} },
	"putOn":          func() Command { return &PutOn{} },
	"restack":        func() Command { return &Restack{} },
	"stepInStack":    func() Command { return &StepInStack{} },
	"addMat":         func() Command { return &AddMat{} },
	"setMat":         func() Command { return &SetMat{} },
	"setRole":        func() Command { return &SetRole{} },
	"repaper":        func() Command { return &Repaper{} },
	"groupItems":     func() Command { return &GroupItems{} },
	"ungroupItems":   func() Command { return &UngroupItems{} },
	"nameGroup":      func() Command { return &NameGroup{} },
	"lockItems":      func() Command { return &LockItems{} },
	"hideItems":      func() Command { return &HideItems{} },
	"putOnFace":      func() Command { return &PutOnFace{} },
	"addWindow":      func() Command { return &AddWindow{} },
	"setWindow":      func() Command { return &SetWindow{} },
	"setInsert":      func() Command { return &SetInsert{} },
	"layPieces":      func() Command { return &LayPieces{} },
	"loosenPieces":   func() Command { return &LoosenPieces{} },
	"editPhoto":      func() Command { return &EditPhoto{} },
	"untiePieces":    func() Command { return &UntiePieces{} },
	"setNames":       func() Command { return &SetNames{} },
	"setCell":        func() Command { return &SetCell{} },
	"setRow":         func() Command { return &SetRow{} },
	"removeNames":    func() Command { return &RemoveNames{} },
	"nameColumn":     func() Command { return &NameColumn{} },
	"showName":       func() Command { return &ShowName{} },
	"layNames":       func() Command { return &LayNames{} },
	"differ":         func() Command { return &Differ{} },
	"makeField":      func() Command { return &MakeField{} },
}

// Decode reads one command of the protocol by a table of empty commands, which
// is Commands and what packages above this one add. Fields it does not know
// are refused, since a misspelt one would otherwise be dropped in silence.
func Decode(table map[string]func() Command, raw []byte) (Command, error) {
	var fields map[string]json.RawMessage
	if err := json.Unmarshal(raw, &fields); err != nil {
		return nil, Refuse("commands", "A command is an object with its name in “do”.")
	}
	var name string
	if err := json.Unmarshal(fields["do"], &name); err != nil || table[name] == nil {
		return nil, Refuse("do", "There is no command “%s”.", name)
	}
	delete(fields, "do")
	rest, err := json.Marshal(fields)
	if err != nil {
		return nil, Refuse("commands", "The command %s cannot be read.", name)
	}
	cmd := table[name]()
	dec := json.NewDecoder(bytes.NewReader(rest))
	dec.DisallowUnknownFields()
	if err := dec.Decode(cmd); err != nil && err != io.EOF {
		return nil, Refuse(name, "The command %s cannot be read: %v.", name, err)
	}
	return cmd, nil
}

// Apply applies the commands one after the other, all or none. It returns the card as it was
// with the *Refusal of the first that is refused.
func Apply(c Card, commands ...Command) (Card, error) {
	for _, cmd := range commands {
		next, err := cmd.Apply(c)
		if err != nil {
			return c, err
		}
		c = next
	}
	return c, nil
}

// Change is what most commands are: a change to a copy, put in order and checked as a whole.
// It returns the card as it was with a *Refusal when the outcome is not sound.
func Change(c Card, f func(*Card) error) (Card, error) {
	next := c.clone()
	if err := f(&next); err != nil {
		return c, err
	}
	for i := range next.Faces {
		// What lies on itself, by whatever way round, is under nothing and on
		// nothing: the order of the stack cannot hold it.
		n := len(next.Faces[i].Items)
		if next.Faces[i].order(); len(next.Faces[i].Items) != n {
			return c, Refuse("on", "Something would lie on itself.")
		}
		next.Faces[i].tidyGroups()
	}
	next.tidyJoined()
	next.tidyWindows()
	next.tidyText()
	next.tidyNames()
	next.tidyLaid()
	if err := next.check(); err != nil {
		return c, err
	}
	return next, nil
}

// OnFace is Change for commands about items, which must share a face. It returns a *Refusal
// when they do not.
func OnFace(c Card, ids []string, f func(*Card, *Face) error) (Card, error) {
	return Change(c, func(c *Card) error {
		if len(ids) == 0 {
			return Refuse("ids", "Choose at least one item.")
		}
		face, _ := c.Find(ids[0])
		for i, id := range ids {
			if face == nil || face.Item(id) == nil {
				return Refuse("ids", "Something that was chosen is not there any more, or lies on another face. Choose again.")
			}
			if slices.Contains(ids[:i], id) {
				return Refuse("ids", "The item “%s” is named twice.", id)
			}
		}
		return f(c, face)
	})
}

func label(verb string, ids []string) string {
	if len(ids) == 1 {
		return verb + " an item"
	}
	return fmt.Sprintf("%s %d items", verb, len(ids))
}

// Tidy rounds to a nanometre, so that sums of fractions do not fray.
func Tidy(v float64) float64 { return math.Round(v*1e6) / 1e6 }

// RenameCard gives the card another title.
type RenameCard struct {
	Title string `json:"title"`
}

// Label implements Command.
func (RenameCard) Label() string { return "Rename the card" }

// Apply implements Command.
func (k RenameCard) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error { c.Title = k.Title; return nil })
}
