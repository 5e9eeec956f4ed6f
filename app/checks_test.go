package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/app"
	"sectilis/core/check"
	"sectilis/core/coretest"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

// found are the findings of a check.
func found(all []check.Finding, id check.ID) (out []check.Finding) {
	for _, f := range all {
		if f.Check == id {
			out = append(out, f)
		}
	}
	return out
}

// A line that is due is told until it stands on the card, which one verb does; what is for personal use
// only is told as long as it is on it.
func TestCreditsThatAreDueAreToldUntilTheyStandOnTheCard(t *testing.T) {
	f := start(t)
	id := f.card()
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	picture := v.Card.Uses().Pictures[0]
	seen, err := f.Check(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, v.Revision, seen.Revision)
	assert.Empty(t, found(seen.Findings, "credits"))
	assert.Empty(t, seen.Credits.Text)

	require.NoError(t, f.NoteSupply(t.Context(), app.Supply{Kind: "photo", ID: picture, Rights: app.CreditDue, Credit: "Gate by Ida Quince"}))
	seen, err = f.Check(t.Context(), id)
	require.NoError(t, err)
	due := found(seen.Findings, "credits")
	require.Len(t, due, 1)
	assert.Contains(t, due[0].Why, "“Gate by Ida Quince” is due")
	assert.Equal(t, "Gate by Ida Quince", seen.Credits.Text)
	require.NotEmpty(t, due[0].Mends)
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{due[0].Mends[0].Do[0].Command})
	require.NoError(t, err)
	seen, err = f.Check(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, found(seen.Findings, "credits"))
	full, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	for _, g := range full.Findings {
		assert.NotContains(t, v.Made, g.Item, "the line is set well: %s", g.Why)
	}

	require.NoError(t, f.NoteSupply(t.Context(), app.Supply{Kind: "photo", ID: picture, Rights: app.PersonalUse}))
	seen, err = f.Check(t.Context(), id)
	require.NoError(t, err)
	assert.Len(t, found(seen.Findings, "rights"), 1)
	assert.Len(t, seen.Credits.Personal, 1)
	_, err = f.Check(t.Context(), "none")
	assert.ErrorIs(t, err, app.ErrNotFound)
	_, err = f.Credits(t.Context(), "none")
	assert.ErrorIs(t, err, app.ErrNotFound)
}

// What is left so is told with its reason, everywhere, and goes on being left when the card changes.
func TestWhatIsLeftSoStaysLeft(t *testing.T) {
	f := start(t)
	id, err := f.Create(t.Context(), coretest.Empty(t))
	require.NoError(t, err)
	place := card.PlaceItems{Face: card.Front, Items: []card.Item{{Name: "Tab", Kind: card.Shape, Place: card.Place{X: 0, Y: 60}, Made: card.Made{As: card.Cut, Stock: "moss-216"},
		Form: &card.Form{Outline: card.Rectangle, Width: 20, Height: 20, Corner: card.Square}}}}
	v, err := f.Change(t.Context(), id, 1, []card.Command{place})
	require.NoError(t, err)
	seen, err := f.Check(t.Context(), id)
	require.NoError(t, err)
	var told check.Finding
	for _, g := range seen.Findings {
		if g.Item == v.Made[0] {
			told = g
		}
	}
	require.NotEmpty(t, told.Why)
	require.NotNil(t, told.At)
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.LeaveSo{Check: string(told.Check), Item: told.Item, Why: " It is pulled there "}})
	require.NoError(t, err)
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.RenameCard{Title: "With a tab"}})
	require.NoError(t, err)
	seen, err = f.Check(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "It is pulled there", found(seen.Findings, told.Check)[0].Left)
	folded, err := f.Fold(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "It is pulled there", found(folded.Findings, told.Check)[0].Left)
	// With the item goes what was said of it, at the next such change.
	v, err = f.Change(t.Context(), id, v.Revision, []card.Command{card.RemoveItems{IDs: []string{told.Item}}, card.LeaveSo{Check: "thick", Why: "By hand"}})
	require.NoError(t, err)
	full, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, []card.LeftSo{{Check: "thick", Why: "By hand"}}, full.Card.Left)
	for why, bad := range map[string]card.LeaveSo{
		"no item":           {Check: "thick", Item: "i99", Why: "x"},
		"no check":          {Check: "Thick!", Why: "x"},
		"at most 200":       {Check: "thick", Why: strings.Repeat("x", 201)},
		"in at most 200 le": {Check: "thick", Why: "two\nlines"},
	} {
		_, err = f.Change(t.Context(), id, v.Revision, []card.Command{bad})
		assert.ErrorContains(t, err, why)
	}
}

// Classes of post are a person's own; the first that takes the card is told, and none where it is too thick.
func TestPostGoesByAPersonsOwnClasses(t *testing.T) {
	f := start(t)
	id := f.card()
	usual, err := f.Posts(t.Context())
	require.NoError(t, err)
	assert.Equal(t, card.UsualPosts(), usual)
	require.NoError(t, f.SetPosts(t.Context(), []card.Post{{Name: "Slim", Width: 300, Height: 200, Thick: .8, Weight: 100}, {Name: "Packet", Width: 400, Height: 300, Thick: 50, Weight: 1000}}))
	seen, err := f.Check(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "Packet", seen.Post)
	assert.Empty(t, found(seen.Findings, "thick"))
	assert.Greater(t, seen.Letter.Weight, 5.0)
	require.NoError(t, f.SetPosts(t.Context(), []card.Post{{Name: "Slim", Width: 300, Height: 200, Thick: .8, Weight: 100}}))
	seen, err = f.Check(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, seen.Post)
	assert.Len(t, found(seen.Findings, "thick"), 1)
	require.NoError(t, f.SetPosts(t.Context(), nil))
	again, err := f.Posts(t.Context())
	require.NoError(t, err)
	assert.Equal(t, usual, again)
	for _, bad := range [][]card.Post{
		{{Name: "", Width: 300, Height: 200, Thick: 1, Weight: 100}},
		{{Name: "Far", Width: 3e6, Height: 200, Thick: 1, Weight: 100}},
		make([]card.Post, 13),
	} {
		var refused *card.Refusal
		assert.ErrorAs(t, f.SetPosts(t.Context(), bad), &refused)
	}
	square := card.Post{Width: 150, Height: 150, Thick: 1, Weight: 10}
	assert.Equal(t, "Large letter", card.PostFor(usual, square).Name, "what is square is no letter")
}

func TestTheClosedCardIsCutThroughAnywhere(t *testing.T) {
	f := start(t)
	id := f.card()
	cut, err := f.Cut(t.Context(), id, geom.Pt(0, 60), geom.Pt(100, 60))
	require.NoError(t, err)
	assert.InDelta(t, 100, cut.Long, 1e-9)
	require.NotEmpty(t, cut.Strips)
	v, err := f.Open(t.Context(), id)
	require.NoError(t, err)
	assert.LessOrEqual(t, cut.Thickest, v.Scene.Thickness+1e-6)
	away, err := f.Cut(t.Context(), id, geom.Pt(-300, -300), geom.Pt(-200, -300))
	require.NoError(t, err)
	assert.Empty(t, away.Strips)
	_, err = f.Cut(t.Context(), "none", geom.Pt(0, 0), geom.Pt(1, 1))
	assert.ErrorIs(t, err, app.ErrNotFound)
}
