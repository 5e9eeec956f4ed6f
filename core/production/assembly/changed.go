package assembly

import (
	"cmp"
	"slices"

	"sectilis/core/document/card"
)

// changed is a guide with what a person has changed of it: steps reworded, left out, done together, moved as
// far as what they need and what needs them lets them, and her own. What is not there any more is passed
// over.
func changed(steps []Step, changes []card.StepChange) []Step {
	at := func(id string) int { return place(steps, id) }
	for _, k := range changes {
		if k.Own {
			steps = append(steps, Step{ID: k.ID, Kind: Own, Title: k.Title, Does: k.Does, Needs: []string{}, Desk: []Thing{}, Measures: []Measure{}, Minutes: 2, Changed: true})
			continue
		}
		if i := at(k.ID); i >= 0 {
			steps[i].Title, steps[i].Does = cmp.Or(k.Title, steps[i].Title), cmp.Or(k.Does, steps[i].Does)
			steps[i].Changed = true
		}
	}
	// What is left out goes first: nothing is done together with it any more, and so lost.
	for _, k := range changes {
		if i := at(k.ID); k.Out && i >= 0 {
			steps = without(steps, i)
		}
	}
	for _, k := range changes {
		i, into := at(k.ID), at(k.Into)
		switch {
		case i < 0:
		case k.Into != "" && into >= 0:
			// Side by side nothing is between them that needs one and is needed by the other.
			to := into
			if to < i {
				to++
			}
			near := moved(steps, i, to)
			if a, b := place(near, k.ID), place(near, k.Into); beside(a, b) {
				steps = together(near, a, b)
			}
		case k.After == card.AtStart:
			steps = moved(steps, i, 0)
		case k.After != "" && at(k.After) >= 0:
			to := at(k.After)
			if to < i {
				to++
			}
			steps = moved(steps, i, to)
		}
	}
	return steps
}

// place is the place of a step in a guide; -1 where it is not there.
func place(steps []Step, id string) int {
	return slices.IndexFunc(steps, func(s Step) bool { return s.ID == id })
}

// beside reports whether two places follow one another.
func beside(i, j int) bool { return i-j == 1 || j-i == 1 }

// without is a guide without a step: what needed it needs what that needed.
func without(steps []Step, i int) []Step {
	out := slices.Clone(steps)
	gone := out[i]
	out = slices.Delete(out, i, i+1)
	for k := range out {
		if slices.Contains(out[k].Needs, gone.ID) {
			out[k].Needs = merged(slices.DeleteFunc(slices.Clone(out[k].Needs), func(id string) bool { return id == gone.ID }), gone.Needs)
		}
	}
	return out
}

func merged(a, b []string) []string {
	for _, id := range b {
		if !slices.Contains(a, id) {
			a = append(a, id)
		}
	}
	return a
}

// together is a guide in which a step is done together with another: at the place of the later of both.
func together(steps []Step, i, into int) []Step {
	out := slices.Clone(steps)
	a, b := out[min(i, into)], out[max(i, into)]
	one := out[into]
	one.Does = a.Does + " " + b.Does
	one.Desk = append(slices.Clone(a.Desk), b.Desk...)
	one.Measures = append(slices.Clone(a.Measures), b.Measures...)
	one.Minutes, one.Changed = a.Minutes+b.Minutes, true
	one.Needs = slices.DeleteFunc(merged(slices.Clone(a.Needs), b.Needs), func(id string) bool { return id == a.ID || id == b.ID })
	one.With = append(append(slices.Clone(one.With), out[i].With...), out[i].ID)
	for k := range out {
		if slices.Contains(out[k].Needs, out[i].ID) {
			out[k].Needs = merged(slices.DeleteFunc(slices.Clone(out[k].Needs), func(id string) bool { return id == steps[i].ID }), []string{one.ID})
		}
	}
	out[max(i, into)] = one
	return slices.Delete(out, min(i, into), min(i, into)+1)
}

// moved is a guide with a step at another place, or as near to it as what it needs, and what needs it,
// lets it.
func moved(steps []Step, i, to int) []Step {
	s := steps[i]
	rest := slices.Delete(slices.Clone(steps), i, i+1)
	lo, hi := 0, len(rest)
	for k, o := range rest {
		if slices.Contains(s.Needs, o.ID) {
			lo = k + 1
		}
	}
	for k := len(rest) - 1; k >= 0; k-- {
		if slices.Contains(rest[k].Needs, s.ID) {
			hi = k
		}
	}
	return slices.Insert(rest, min(max(to, lo), hi), s)
}
