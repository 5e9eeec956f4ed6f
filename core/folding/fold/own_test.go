package fold

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func TestOwnLinesFoldLikeTheCatalogues(t *testing.T) {
	c, err := New("Trial", base(card.TopFold, 120, 140, nil))
	require.NoError(t, err)
	c, err = card.Apply(c, AddStrip{From: 20, To: 50, Up: 60, Out: 35}, MirrorLines{})
	require.NoError(t, err)
	require.Len(t, c.Base.Lines, 12)
	s := StudyOf(c.Base)
	assert.True(t, s.Verdict.Folds && s.Verdict.Flat, "%v", s.Verdict.Why)
	assert.Len(t, s.Panels, 6)
	assert.InDelta(t, 60, offPlane(s.Folder, s.Poses[30], s.PanelAt(geom.Pt(5, 50)), geom.Pt(35, 140+60-35), s.PanelAt(geom.Pt(35, 140+60-35+1))), 1e-6)
	// What is drawn symmetric folds symmetric.
	for _, p := range s.Poses {
		for i, h := range s.Hinges {
			for j, o := range s.Hinges {
				if math.Abs(h.From.X+o.To.X-120) < 1e-6 && math.Abs(h.From.Y-o.To.Y) < 1e-6 && math.Abs(h.To.X+o.From.X-120) < 1e-6 && h.Role == o.Role {
					require.InDelta(t, p.Angles[i], p.Angles[j], 1e-7)
				}
			}
		}
	}
	again, err := card.Apply(c, MirrorLines{})
	require.NoError(t, err)
	assert.Len(t, again.Base.Lines, 12, "what is mirrored already is not doubled")

	// Three strips by repeating one.
	c, err = card.Apply(c, RemoveLines{}, AddStrip{From: 8, To: 28, Up: 40, Out: 30}, RepeatLines{Count: 2, DX: 35})
	require.NoError(t, err)
	s = StudyOf(c.Base)
	assert.True(t, s.Verdict.Folds && s.Verdict.Flat, "%v", s.Verdict.Why)
	assert.Len(t, s.Panels, 8)

	// A flap of one's own is turned by hand.
	c, err = card.Apply(c, RemoveLines{}, AddLines{Lines: []card.OwnLine{{Role: Valley, From: geom.Pt(0, 40), To: geom.Pt(120, 40)}}})
	require.NoError(t, err)
	s = StudyOf(c.Base)
	assert.True(t, s.Verdict.Folds, "%v", s.Verdict.Why)
	assert.Len(t, s.Panels, 3)
	for i := range s.Hinges {
		assert.InDelta(t, math.Pi, math.Abs(s.Poses[60].Angles[i]), 1e-9)
	}
	c, err = card.Apply(c, RemoveLines{Lines: []int{0}})
	require.NoError(t, err)
	assert.Empty(t, c.Base.Lines)
}

func TestOwnLinesThatCannotBeAreRefused(t *testing.T) {
	c, err := New("Trial", base(card.TopFold, 120, 140, nil))
	require.NoError(t, err)
	for why, k := range map[string]card.Command{
		"leave the sheet":  AddLines{Lines: []card.OwnLine{{Role: Cut, From: geom.Pt(0, 0), To: geom.Pt(130, 0)}}},
		"two places":       AddLines{Lines: []card.OwnLine{{Role: Cut, From: geom.Pt(1, 1), To: geom.Pt(1, 1)}}},
		"A line is for":    AddLines{Lines: []card.OwnLine{{Role: "saw", From: geom.Pt(1, 1), To: geom.Pt(1, 2)}}},
		"at least 3 mm":    AddStrip{From: 10, To: 11, Up: 20, Out: 20},
		"over the edge":    AddStrip{From: 10, To: 31, Up: 200, Out: 20},
		"between 1 and 40": RepeatLines{Count: 3},
	} {
		_, err := k.Apply(c)
		var r *card.Refusal
		require.ErrorAs(t, err, &r, why)
		assert.ErrorContains(t, err, why)
	}
	c, err = card.Apply(c, AddStrip{From: 10, To: 40, Up: 20, Out: 20})
	require.NoError(t, err)
	_, err = RepeatLines{Count: 4, DX: 30}.Apply(c)
	assert.ErrorContains(t, err, "copy number 3 would leave the sheet")
	// A cut that ends in nowhere is told.
	c, err = card.Apply(c, AddLines{Lines: []card.OwnLine{{Role: Cut, From: geom.Pt(60, 20), To: geom.Pt(80, 20)}}})
	require.NoError(t, err)
	v := StudyOf(c.Base).Verdict
	assert.False(t, v.Folds)
	assert.Contains(t, v.Why[0], "ends in nowhere")
}
