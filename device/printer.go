package device

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strconv"

	"sectilis/app"
)

// Printer sends pages as PNG over HTTP.
type Printer struct{ URL string }

// Name implements app.Printer.
func (p Printer) Name() string { return "Desk printer" }

// Print implements app.Printer.
func (p Printer) Print(ctx context.Context, page app.Page) (string, error) {
	mm := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	q := url.Values{"width": {mm(page.Width)}, "height": {mm(page.Height)}, "title": {page.Title}, "paper": {page.Paper}, "kind": {string(page.Kind)}}
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, p.URL+"/pages?"+q.Encode(), bytes.NewReader(page.PNG))
	if err != nil {
		return "", err
	}
	req.Header.Set("Content-Type", "image/png")
	raw, err := do(req, pageTime)
	if err != nil {
		if ctx.Err() != nil {
			return "", ctx.Err()
		}
		return "", fmt.Errorf("the printer does not answer at %s; start it with “sectilis printer”, or save the PDF instead (%w)", p.URL, err)
	}
	var answer struct {
		Ref string `json:"ref"`
	}
	if err := json.Unmarshal(raw, &answer); err != nil || !refs.MatchString(answer.Ref) {
		return "", fmt.Errorf("what answers at %s is no printer", p.URL)
	}
	return answer.Ref, nil
}

var refs = regexp.MustCompile(`^[0-9a-z]{1,40}$`)

// Picture implements app.Printer.
func (p Printer) Picture(ctx context.Context, ref string, small bool) ([]byte, error) {
	if !refs.MatchString(ref) {
		return nil, app.ErrNotFound
	}
	if small {
		ref += "?small=1"
	}
	raw, err := get(ctx, pictureTime, p.URL+"/pages/"+ref)
	if err != nil && ctx.Err() == nil && !errors.Is(err, app.ErrNotFound) {
		return nil, &app.AwayError{Why: fmt.Sprintf("The printer does not answer at %s: what it printed cannot be shown now.", p.URL), Err: err}
	}
	return raw, err
}
