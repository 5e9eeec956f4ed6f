package app

import (
	"context"
	"slices"
	"strings"
	"unicode/utf8"

	"sectilis/core/document/card"
)

// PhotoLook is a list of edits under a name that photos can be given again.
type PhotoLook struct {
	Name  string      `json:"name"`
	Edits []card.Edit `json:"edits"`
}

// mostPhotoLooks is how many looks of one's own are kept.
const mostPhotoLooks = 200

// PhotoLooks are the looks of one's own, the newest first. It fails when the store does.
func (p *production) PhotoLooks(ctx context.Context) ([]PhotoLook, error) {
	return keptList[PhotoLook](ctx, p.store, "photoLooks")
}

// KeepPhotoLook keeps edits under a name, in place of what was kept under it; none takes it away.
// It returns a *card.Refusal for a name that is none, and for edits that belong to one photo alone.
func (p *production) KeepPhotoLook(ctx context.Context, l PhotoLook) error {
	l.Name = strings.TrimSpace(l.Name)
	if l.Name == "" || !utf8.ValidString(l.Name) || utf8.RuneCountInString(l.Name) > 40 {
		return card.Refuse("name", "A look has a name of up to 40 letters.")
	}
	if err := card.CheckEdits(l.Edits); err != nil {
		return err
	}
	for _, e := range l.Edits {
		if !e.ForAny() {
			return card.Refuse("edits", "What is done at a place in one photo is no look for others: light, colours and tones are.")
		}
	}
	return changeList(ctx, p.lists, p.store, "photoLooks", func(all []PhotoLook) ([]PhotoLook, error) {
		out := slices.DeleteFunc(all, func(o PhotoLook) bool { return o.Name == l.Name })
		if len(l.Edits) > 0 {
			out = slices.Insert(out, 0, l)
		}
		if len(out) > mostPhotoLooks {
			return nil, card.Refuse("looks", "Up to %d looks are kept. Take one away first.", mostPhotoLooks)
		}
		return out, nil
	})
}
