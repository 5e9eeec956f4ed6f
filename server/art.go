package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"sectilis/app"
)

// LayArt lays art of the tray on a face, on top of a revision.
type LayArt struct {
	Base int64 `json:"base"`
	app.LaidArt
}

func (s *server) layArt(c *gin.Context) {
	var l LayArt
	if s.read(c, &l) {
		v, err := s.App.LayArt(c.Request.Context(), c.Param("id"), l.Base, l.LaidArt)
		s.view(c, v, err)
	}
}

func (s *server) keepArt(c *gin.Context) {
	var k app.KeptThings
	if s.read(c, &k) {
		a, err := s.App.KeepArt(c.Request.Context(), c.Param("id"), k)
		s.art(c, a, err)
	}
}

func (s *server) keepDrawing(c *gin.Context) {
	var l app.Laying
	if s.read(c, &l) {
		a, err := s.App.KeepDrawing(c.Request.Context(), l)
		s.art(c, a, err)
	}
}

func (s *server) art(c *gin.Context, a app.Art, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, a)
}
