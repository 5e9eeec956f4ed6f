package server

import (
	"context"
	"encoding/json"
	"io"
	"net/http"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/folding/fold"
	"sectilis/core/ground/measure"
	"sectilis/core/production/sheet"
)

func (s *server) cards(c *gin.Context) {
	all, err := s.App.Cards(c.Request.Context(), c.Query("find"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, all)
}

// NewCard is a card to put on the table.
type NewCard struct {
	Title string    `json:"title"`
	Base  card.Base `json:"base"`
	// Sheets is how its sheets are laid; nil is as usual.
	Sheets *card.SheetSetup `json:"sheets,omitempty"`
}

// CardRef names a card.
type CardRef struct {
	ID string `json:"id"`
}

func (s *server) create(c *gin.Context) {
	var n NewCard
	if !s.read(c, &n) {
		return
	}
	doc, err := fold.New(n.Title, n.Base)
	if err == nil && n.Sheets != nil {
		doc, err = card.Apply(doc, sheet.SetSheets{Sheets: *n.Sheets})
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	id, err := s.App.Create(c.Request.Context(), doc)
	s.created(c, id, err)
}

func (s *server) duplicate(c *gin.Context) {
	id, err := s.App.Duplicate(c.Request.Context(), c.Param("id"))
	s.created(c, id, err)
}

func (s *server) created(c *gin.Context, id string, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, CardRef{id})
}

func (s *server) remove(c *gin.Context) {
	if err := s.App.Remove(c.Request.Context(), c.Param("id")); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *server) restore(c *gin.Context) {
	if err := s.App.Restore(c.Request.Context(), c.Param("id")); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *server) open(c *gin.Context) {
	v, err := s.App.Open(c.Request.Context(), c.Param("id"))
	s.view(c, v, err)
}

func (s *server) view(c *gin.Context, v app.View, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, v)
}

// Change is a batch of commands on top of a revision.
type Change struct {
	Base     int64             `json:"base"`
	Commands []json.RawMessage `json:"commands,omitempty"`
}

func (s *server) change(c *gin.Context) { s.apply(c, s.App.Change) }

// try answers as a change would, but makes none.
func (s *server) try(c *gin.Context) {
	s.apply(c, func(ctx context.Context, id string, base int64, commands []card.Command) (app.View, error) {
		return s.App.TryFor(ctx, id, base, commands, c.Query("row"))
	})
}

func (s *server) apply(c *gin.Context, f func(ctx context.Context, id string, base int64, commands []card.Command) (app.View, error)) {
	if base, commands, ok := s.commands(c); ok {
		v, err := f(c.Request.Context(), c.Param("id"), base, commands)
		s.view(c, v, err)
	}
}

// trySheets tells how many sheets a change would take.
func (s *server) trySheets(c *gin.Context) {
	if base, commands, ok := s.commands(c); ok {
		told, err := s.App.TrySheets(c.Request.Context(), c.Param("id"), base, commands)
		answer(s, c, told, err)
	}
}

// commands reads a change; it has answered when ok is false.
func (s *server) commands(c *gin.Context) (base int64, commands []card.Command, ok bool) {
	var ch Change
	if !s.read(c, &ch) {
		return 0, nil, false
	}
	for _, raw := range ch.Commands {
		cmd, err := card.Decode(app.Commands, raw)
		if err != nil {
			s.fail(c, err)
			return 0, nil, false
		}
		commands = append(commands, cmd)
	}
	return ch.Base, commands, true
}

func (s *server) undo(c *gin.Context) {
	var ch Change
	if s.read(c, &ch) {
		v, err := s.App.Undo(c.Request.Context(), c.Param("id"), ch.Base)
		s.view(c, v, err)
	}
}

func (s *server) redo(c *gin.Context) {
	var ch Change
	if s.read(c, &ch) {
		v, err := s.App.Redo(c.Request.Context(), c.Param("id"), ch.Base)
		s.view(c, v, err)
	}
}

func (s *server) fold(c *gin.Context) {
	v, err := s.App.Fold(c.Request.Context(), c.Param("id"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, v)
}

// unit is the unit that lengths are said in, inches where none is named.
func unit(c *gin.Context) measure.Unit {
	if c.Query("unit") == string(measure.MM) {
		return measure.MM
	}
	return measure.In
}

// parts is to which part of an inch lengths are said: parts=64, or 32.
func parts(c *gin.Context) int {
	if c.Query("parts") == "64" {
		return 64
	}
	return 32
}

func (s *server) directions(c *gin.Context) {
	_, _, d, err := s.App.Directions(c.Request.Context(), c.Param("id"), unit(c), parts(c))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, d)
}

func (s *server) directionsPDF(c *gin.Context) {
	s.file(c, "application/pdf", "directions.pdf", func(w io.Writer) error {
		return s.App.WriteDirections(c.Request.Context(), w, c.Param("id"), unit(c), parts(c))
	})
}

func (s *server) standing(c *gin.Context) {
	raw, err := s.App.Thumbnail(c.Request.Context(), c.Param("id"))
	s.picture(c, "image/png", raw, err, "no-cache")
}

func (s *server) picture(c *gin.Context, kind string, raw []byte, err error, cache string) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Cache-Control", cache)
	c.Data(http.StatusOK, kind, raw)
}
