package server

import (
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"sectilis/app"
)

// papers are the routes of patterned papers, and of motifs of a person's own.
func (s *server) papers(r *gin.RouterGroup) {
	r.GET("/papers/:paper", func(c *gin.Context) {
		svg, err := s.App.PaperPicture(c.Request.Context(), strings.TrimSuffix(c.Param("paper"), ".svg"))
		if err != nil {
			s.fail(c, err)
			return
		}
		c.Header("Cache-Control", "max-age=86400")
		c.Data(http.StatusOK, "image/svg+xml", []byte(svg))
	})
	r.POST("/papers/files", func(c *gin.Context) {
		name, raw, ok := s.upload(c, "a JPEG, PNG or WebP picture, or an SVG drawing")
		if !ok {
			return
		}
		in, err := s.App.ReadPaper(c.Request.Context(), name, raw)
		if err != nil {
			s.fail(c, err)
			return
		}
		c.JSON(http.StatusCreated, in)
	})
	r.POST("/cards/:id/motifs", func(c *gin.Context) {
		var n app.NewMotif
		if !s.read(c, &n) {
			return
		}
		m, err := s.App.MakeMotif(c.Request.Context(), c.Param("id"), n)
		if err != nil {
			s.fail(c, err)
			return
		}
		c.JSON(http.StatusCreated, m)
	})
	r.DELETE("/motifs/:motif", func(c *gin.Context) { s.done(c, s.App.RemoveMotif(c.Request.Context(), c.Param("motif"))) })
	r.POST("/papers", func(c *gin.Context) {
		var n app.NewPaper
		if !s.read(c, &n) {
			return
		}
		p, err := s.App.AddPaper(c.Request.Context(), n)
		if err != nil {
			s.fail(c, err)
			return
		}
		c.JSON(http.StatusCreated, p)
	})
	r.PUT("/papers/:paper", func(c *gin.Context) {
		var n app.NewPaper
		if s.read(c, &n) {
			s.done(c, s.App.ChangePaper(c.Request.Context(), c.Param("paper"), n))
		}
	})
	r.DELETE("/papers/:paper", func(c *gin.Context) { s.done(c, s.App.RemovePaper(c.Request.Context(), c.Param("paper"))) })
}
