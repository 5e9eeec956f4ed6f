package card

import (
	"slices"
	"strings"
	"unicode/utf8"
)

// LeftSo is something that a check has found and a person leaves as it is. Check is the id of the check,
// Item that of the item; "" for the card.
type LeftSo struct {
	Check string `json:"check"`
	Item  string `json:"item,omitempty"`
	Why   string `json:"why"`
}

// maxLeft is how many findings are left so at most.
const maxLeft = 500

// LeftSo is why a finding is left so; "" where that has not been said.
func (c *Card) LeftSo(check, item string) string {
	for _, l := range c.Left {
		if l.Check == check && l.Item == item {
			return l.Why
		}
	}
	return ""
}

// LeaveSo leaves what a check has found about an item, or about the card, as it is; no reason takes that
// back.
type LeaveSo struct {
	Check string `json:"check"`
	Item  string `json:"item,omitempty"`
	Why   string `json:"why"`
}

// Label implements Command.
func (k LeaveSo) Label() string {
	if k.Why == "" {
		return "Look at it again"
	}
	return "Leave it so"
}

// Apply implements Command.
func (k LeaveSo) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		if k.Item != "" {
			if _, it := c.Find(k.Item); it == nil {
				return Refuse("item", "There is no item “%s” any more.", k.Item)
			}
		}
		c.Left = slices.DeleteFunc(slices.Clone(c.Left), func(l LeftSo) bool {
			gone := false
			if l.Item != "" {
				_, it := c.Find(l.Item)
				gone = it == nil
			}
			return gone || l.Check == k.Check && l.Item == k.Item
		})
		if why := strings.TrimSpace(k.Why); why != "" {
			c.Left = append(c.Left, LeftSo{k.Check, k.Item, why})
		}
		return nil
	})
}

func (c *Card) checkLeft() error {
	if len(c.Left) > maxLeft {
		return Refuse("left", "At most %d findings are left so.", maxLeft)
	}
	for _, l := range c.Left {
		if !faceName.MatchString(l.Check) || len(l.Item) > 20 {
			return Refuse("check", "There is no check “%s”.", l.Check)
		}
		if n := utf8.RuneCountInString(l.Why); n < 1 || n > 200 || strings.ContainsFunc(l.Why, func(r rune) bool { return r < ' ' }) {
			return Refuse("why", "Say in a line why it is left so, in at most 200 letters.")
		}
	}
	return nil
}
