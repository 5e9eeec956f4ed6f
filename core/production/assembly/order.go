package assembly

// longestFirst orders steps so that each comes after those that it needs and, of those that could be next,
// the one with the most still to come behind it comes first. (List scheduling by the critical path: Kohler,
// "A preliminary evaluation of the critical path method for scheduling tasks", 1975.) Among equals the order
// is that in which they were made.
func longestFirst(steps []Step) []Step {
	at := map[string]int{}
	for i, s := range steps {
		at[s.ID] = i
	}
	after := make([][]int, len(steps))
	left := make([]int, len(steps))
	for i, s := range steps {
		for _, n := range s.Needs {
			after[at[n]] = append(after[at[n]], i)
			left[i]++
		}
	}
	// Steps need only what was made before them, so that one pass from the last is enough.
	behind := make([]float64, len(steps))
	for i := len(steps) - 1; i >= 0; i-- {
		for _, k := range after[i] {
			behind[i] = max(behind[i], behind[k])
		}
		behind[i] += steps[i].Minutes
	}
	out := make([]Step, 0, len(steps))
	done := make([]bool, len(steps))
	last := -1
	for len(out) < len(steps) {
		next := -1
		for i := range steps {
			if done[i] || left[i] > 0 {
				continue
			}
			// What goes on with the step before is not broken off for something as long.
			if next < 0 || behind[i] > behind[next]+1e-9 && !goesOn(steps, last, next) || goesOn(steps, last, i) && !goesOn(steps, last, next) {
				next = i
			}
		}
		done[next], last = true, next
		for _, k := range after[next] {
			left[k]--
		}
		out = append(out, steps[next])
	}
	return out
}

// goesOn reports whether a step lays what the one before it has worked on.
func goesOn(steps []Step, last, i int) bool {
	return last >= 0 && steps[last].On != "" && (steps[i].Piece == steps[last].On || steps[i].On == steps[last].On)
}
