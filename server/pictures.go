package server

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func (s *server) pictures(c *gin.Context) {
	all, err := s.App.Pictures(c.Request.Context())
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, all)
}

func (s *server) bringIn(c *gin.Context) {
	name, raw, ok := s.upload(c, "a JPEG, PNG or WebP picture")
	if !ok {
		return
	}
	p, err := s.App.BringIn(c.Request.Context(), name, raw)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, p)
}

func (s *server) preview(c *gin.Context) {
	side, err := strconv.Atoi(c.Query("side"))
	if err != nil || !slices.Contains(app.Sides, side) {
		s.fail(c, &card.Refusal{Field: "side", Why: fmt.Sprintf("Previews are made with sides of %v pixels.", app.Sides)})
		return
	}
	kind, raw, err := s.App.PicturePreview(c.Request.Context(), c.Param("id"), side)
	s.picture(c, kind, raw, err, "max-age=31536000, immutable")
}

func (s *server) facts(c *gin.Context) {
	f, err := s.App.Facts(c.Request.Context(), c.Param("id"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, f)
}

func (s *server) trace(c *gin.Context) {
	var ask app.TraceAsk
	if !s.read(c, &ask) {
		return
	}
	t, err := s.App.Trace(c.Request.Context(), c.Param("id"), ask)
	answer(s, c, t, err)
}

// ColourSeen is a colour that was picked from a face.
type ColourSeen struct {
	Colour string `json:"colour"`
}

func (s *server) colourAt(c *gin.Context) {
	var p Place
	if !s.read(c, &p) {
		return
	}
	colour, err := s.App.ColourAt(c.Request.Context(), c.Param("id"), card.FaceID(c.Param("face")), p.At)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, ColourSeen{colour})
}

// EditsAsk are things to be done to a picture.
type EditsAsk struct {
	Edits []card.Edit `json:"edits"`
}

// RightSeen is what sets a picture right; nothing where it is right.
type RightSeen struct {
	Right *card.Right `json:"right,omitempty"`
}

func (s *server) tryEdits(c *gin.Context) {
	side, err := strconv.Atoi(c.Query("side"))
	if err != nil {
		s.fail(c, &card.Refusal{Field: "side", Why: "Say how many pixels the longer side is to have."})
		return
	}
	var ask EditsAsk
	if !s.read(c, &ask) {
		return
	}
	kind, raw, err := s.App.TryEdits(c.Request.Context(), c.Param("id"), ask.Edits, side)
	s.picture(c, kind, raw, err, "no-store")
}

// WayAsk asks for a way between two places of a picture after edits, in shares of it.
type WayAsk struct {
	Edits []card.Edit `json:"edits"`
	From  geom.Point  `json:"from"`
	To    geom.Point  `json:"to"`
}

func (s *server) way(c *gin.Context) {
	var ask WayAsk
	if s.read(c, &ask) {
		points, err := s.App.WayAlong(c.Request.Context(), c.Param("id"), ask.Edits, ask.From, ask.To)
		answer(s, c, points, err)
	}
}

func (s *server) right(c *gin.Context) {
	var ask EditsAsk
	if !s.read(c, &ask) {
		return
	}
	r, err := s.App.RightOf(c.Request.Context(), c.Param("id"), ask.Edits)
	answer(s, c, RightSeen{r}, err)
}
