package server

import (
	"io"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/ground/geom"
)

func (s *server) check(c *gin.Context) {
	v, err := s.App.Check(c.Request.Context(), c.Param("id"))
	answer(s, c, v, err)
}

// CutLine is the line that a closed card is cut through along, in the coordinates of Front, mm.
type CutLine struct {
	From geom.Point `json:"from"`
	To   geom.Point `json:"to"`
}

func (s *server) cut(c *gin.Context) {
	var l CutLine
	if !s.read(c, &l) {
		return
	}
	for _, v := range []float64{l.From.X, l.From.Y, l.To.X, l.To.Y} {
		if !(v > -card.MaxSheet && v < 2*card.MaxSheet) {
			s.fail(c, card.Refuse("from", "The line would lie off the card."))
			return
		}
	}
	v, err := s.App.Cut(c.Request.Context(), c.Param("id"), l.From, l.To)
	answer(s, c, v, err)
}

func (s *server) posts(c *gin.Context) {
	all, err := s.App.Posts(c.Request.Context())
	answer(s, c, all, err)
}

func (s *server) setPosts(c *gin.Context) {
	var all []card.Post
	if s.read(c, &all) {
		s.done(c, s.App.SetPosts(c.Request.Context(), all))
	}
}

func (s *server) assembly(c *gin.Context) {
	v, err := s.App.Assembly(c.Request.Context(), c.Param("id"), unit(c))
	answer(s, c, v, err)
}

// stepPicture answers with the picture of a step as SVG, with photos that are fine enough for a longer side
// of 100 to 1600 pixels.
func (s *server) stepPicture(c *gin.Context) {
	step, ok := strings.CutSuffix(c.Param("file"), ".svg")
	if !ok {
		s.fail(c, app.ErrNotFound)
		return
	}
	side, err := strconv.Atoi(c.DefaultQuery("side", "1200"))
	if err != nil || side < 100 || side > 1600 {
		s.fail(c, card.Refuse("side", "The picture of a step is between 100 and 1600 pixels wide."))
		return
	}
	raw, err := s.App.StepPicture(c.Request.Context(), c.Param("id"), step, unit(c), side)
	s.picture(c, "image/svg+xml", raw, err, "max-age=3600") // the address names the revision
}

// guide answers with how a card is put together as PDF, per 1, 2 or 4 steps on a page.
func (s *server) guide(c *gin.Context) {
	per, err := strconv.Atoi(c.DefaultQuery("per", "2"))
	if err != nil {
		per = 0
	}
	s.file(c, "application/pdf", "guide.pdf", func(w io.Writer) error {
		return s.App.WriteGuide(c.Request.Context(), w, c.Param("id"), unit(c), per)
	})
}

// folding answers with the card as it opens and closes, as an animated PNG.
func (s *server) folding(c *gin.Context) {
	s.file(c, "image/png", "folding.png", func(w io.Writer) error {
		side, err := sideOf(c)
		if err != nil {
			return err
		}
		return s.App.WriteFolding(c.Request.Context(), w, c.Param("id"), side)
	})
}

// stills answers with the card at five openings side by side.
func (s *server) stills(c *gin.Context) {
	s.file(c, "image/png", "opening.png", func(w io.Writer) error {
		side, err := sideOf(c)
		if err != nil {
			return err
		}
		return s.App.WriteStills(c.Request.Context(), w, c.Param("id"), side)
	})
}

// sideOf is the longer side of a picture that is asked for, pixels.
func sideOf(c *gin.Context) (int, error) {
	side, err := strconv.Atoi(c.DefaultQuery("side", "600"))
	if err != nil || side < 120 || side > 1200 {
		return 0, card.Refuse("side", "A moving picture is between 120 and 1200 pixels wide.")
	}
	return side, nil
}

// Ticked says whether a step is done.
type Ticked struct {
	Done bool `json:"done"`
}

func (s *server) tickStep(c *gin.Context) {
	var t Ticked
	if s.read(c, &t) {
		s.done(c, s.App.TickStep(c.Request.Context(), c.Param("id"), c.Param("step"), t.Done))
	}
}
