package card

import (
	"fmt"
	"slices"
	"strings"
)

// Group is a set of items of one face that are chosen and moved as one. The
// items name it; In is the group that it belongs to itself.
type Group struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	In   string `json:"in,omitempty"`
	// Tiers say how its photos are made, where it is a tiered picture.
	Tiers *Tiers `json:"tiers,omitempty"`
}

// maxGroups is how many groups a face holds at most.
const maxGroups = 500

// GroupByID is the group with the id; nil where there is none.
func (f *Face) GroupByID(id string) *Group {
	for i := range f.Groups {
		if f.Groups[i].ID == id {
			return &f.Groups[i]
		}
	}
	return nil
}

// line lists the groups that an item belongs to, the outermost first.
func (f *Face) line(it *Item) []string {
	var out []string
	for g := f.GroupByID(it.Group); g != nil; g = f.GroupByID(g.In) {
		out = append([]string{g.ID}, out...)
	}
	return out
}

// Units sorts items into what is handled as one: a group of which all items
// are among them, or an item by itself. When all of them make up one group, the
// units are what is in it.
func (f *Face) Units(ids []string) [][]string {
	chosen := set(ids)
	lines := map[string][]string{}
	members := map[string]int{}
	for i := range f.Items {
		line := f.line(&f.Items[i])
		lines[f.Items[i].ID] = line
		for _, g := range line {
			members[g]++
		}
	}
	held := map[string]int{}
	for _, id := range ids {
		for _, g := range lines[id] {
			held[g]++
		}
	}
	at := map[string]int{}
	var out [][]string
	for _, id := range ids {
		unit := id
		for _, g := range lines[id] {
			if held[g] == members[g] && members[g] < len(chosen) {
				unit = "group " + g
				break
			}
		}
		i, ok := at[unit]
		if !ok {
			i = len(out)
			at[unit] = i
			out = append(out, nil)
		}
		out[i] = append(out[i], id)
	}
	return out
}

func set(ids []string) map[string]bool {
	out := make(map[string]bool, len(ids))
	for _, id := range ids {
		out[id] = true
	}
	return out
}

// whole are the groups all of whose items are among the ids.
func (f *Face) whole(ids []string) []Group {
	chosen := set(ids)
	partly := map[string]bool{}
	used := map[string]bool{}
	for i := range f.Items {
		for _, g := range f.line(&f.Items[i]) {
			used[g] = true
			if !chosen[f.Items[i].ID] {
				partly[g] = true
			}
		}
	}
	var out []Group
	for _, g := range f.Groups {
		if used[g.ID] && !partly[g.ID] {
			out = append(out, g)
		}
	}
	return out
}

// copyGroups gives new items copies of the groups that came with them.
func (c *Card) copyGroups(f *Face, groups []Group, items []Item) {
	renamed := map[string]string{}
	for _, g := range groups {
		renamed[g.ID] = fmt.Sprintf("g%d", c.NextID)
		c.NextID++
	}
	for _, g := range groups {
		g.ID = renamed[g.ID]
		if in := renamed[g.In]; in != "" {
			g.In = in
		} else if f.GroupByID(g.In) == nil {
			g.In = ""
		}
		f.Groups = append(f.Groups, g)
	}
	for i := range items {
		if g := renamed[items[i].Group]; g != "" {
			items[i].Group = g
		}
	}
}

// tidyGroups takes away groups that hold less than two things: what they hold
// belongs to the group about them.
func (f *Face) tidyGroups() {
	for {
		holds := map[string]int{}
		for _, it := range f.Items {
			holds[it.Group]++
		}
		for _, g := range f.Groups {
			holds[g.In]++
		}
		i := slices.IndexFunc(f.Groups, func(g Group) bool { return holds[g.ID] < 2 })
		if i < 0 {
			break
		}
		f.dissolve(f.Groups[i])
	}
	if len(f.Groups) == 0 {
		f.Groups = nil
	}
}

func (f *Face) dissolve(g Group) {
	for i := range f.Items {
		if f.Items[i].Group == g.ID {
			f.Items[i].Group = g.In
		}
	}
	for i := range f.Groups {
		if f.Groups[i].In == g.ID {
			f.Groups[i].In = g.In
		}
	}
	f.Groups = slices.DeleteFunc(f.Groups, func(o Group) bool { return o.ID == g.ID })
}

func (f *Face) checkGroups() error {
	if len(f.Groups) > maxGroups {
		return Refuse("groups", "A face holds at most %d groups.", maxGroups)
	}
	for i, g := range f.Groups {
		if err := checkName("name", g.Name); err != nil {
			return err
		}
		if err := g.Tiers.Check(); err != nil {
			return err
		}
		if g.ID == "" || slices.ContainsFunc(f.Groups[:i], func(o Group) bool { return o.ID == g.ID }) {
			return Refuse("groups", "Two groups have the same id.")
		}
		steps := 0
		for in := g.In; in != ""; steps++ {
			about := f.GroupByID(in)
			if about == nil || steps > len(f.Groups) {
				return Refuse("groups", "The group “%s” belongs to a group that is not there, or to itself.", g.Name)
			}
			in = about.In
		}
	}
	for _, it := range f.Items {
		if it.Group != "" && f.GroupByID(it.Group) == nil {
			return Refuse("group", "“%s” belongs to a group that is not there.", it.Name)
		}
	}
	return nil
}

// GroupItems makes a group of items and whole groups.
type GroupItems struct {
	IDs  []string `json:"ids"`
	Name string   `json:"name,omitempty"`
}

// Label implements Command.
func (k GroupItems) Label() string { return label("Group", k.IDs) }

// Apply implements Command.
func (k GroupItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(c *Card, f *Face) error {
		// The new group belongs to the innermost group that holds all of them.
		common := f.line(f.Item(k.IDs[0]))
		for _, id := range k.IDs[1:] {
			line := f.line(f.Item(id))
			n := 0
			for n < len(common) && n < len(line) && common[n] == line[n] {
				n++
			}
			common = common[:n]
		}
		g := Group{ID: fmt.Sprintf("g%d", c.NextID), Name: strings.TrimSpace(k.Name)}
		if g.Name == "" {
			g.Name = fmt.Sprintf("Group of %d", len(k.IDs))
		}
		if len(common) > 0 {
			g.In = common[len(common)-1]
		}
		c.NextID++
		joined := map[string]bool{}
		for _, id := range k.IDs {
			it := f.Item(id)
			line := f.line(it)
			if len(line) == len(common) {
				it.Group = g.ID
				joined[id] = true
				continue
			}
			f.GroupByID(line[len(common)]).In = g.ID
			joined[line[len(common)]] = true
		}
		if len(joined) < 2 {
			return Refuse("ids", "A group needs two things or more. Choose another item with Shift.")
		}
		f.Groups = append(f.Groups, g)
		return nil
	})
}

// UngroupItems takes the outermost groups of the items apart.
type UngroupItems struct {
	IDs []string `json:"ids"`
}

// Label implements Command.
func (UngroupItems) Label() string { return "Ungroup" }

// Apply implements Command.
func (k UngroupItems) Apply(c Card) (Card, error) {
	return OnFace(c, k.IDs, func(_ *Card, f *Face) error {
		var outer []string
		for _, id := range k.IDs {
			if line := f.line(f.Item(id)); len(line) > 0 && !slices.Contains(outer, line[0]) {
				outer = append(outer, line[0])
			}
		}
		if len(outer) == 0 {
			return Refuse("ids", "None of these belongs to a group.")
		}
		for _, g := range outer {
			f.dissolve(*f.GroupByID(g))
		}
		return nil
	})
}

// NameGroup names a group of a face.
type NameGroup struct {
	Face FaceID `json:"face"`
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Label implements Command.
func (NameGroup) Label() string { return "Name a group" }

// Apply implements Command.
func (k NameGroup) Apply(c Card) (Card, error) {
	return Change(c, func(c *Card) error {
		f := c.Face(k.Face)
		if f == nil || f.GroupByID(k.ID) == nil {
			return Refuse("id", "The group is not there any more.")
		}
		f.GroupByID(k.ID).Name = strings.TrimSpace(k.Name)
		return nil
	})
}
