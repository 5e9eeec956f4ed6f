package server

import (
	"github.com/gin-gonic/gin"

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
