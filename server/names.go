package server

import (
	"strings"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
)

func (s *server) names(r *gin.RouterGroup) {
	r.GET("/cards/:id/names", func(c *gin.Context) {
		if opt, ok := s.options(c); ok {
			v, err := s.App.Names(c.Request.Context(), c.Param("id"), opt)
			answer(s, c, v, err)
		}
	})
	r.GET("/cards/:id/names/:row/:file", func(c *gin.Context) {
		face, ok := strings.CutSuffix(c.Param("file"), ".png")
		if !ok {
			s.fail(c, app.ErrNotFound)
			return
		}
		raw, err := s.App.NameFace(c.Request.Context(), c.Param("id"), c.Param("row"), card.FaceID(face))
		s.picture(c, "image/png", raw, err, "max-age=3600") // the address names the revision
	})
	r.GET("/cards/:id/names.csv", func(c *gin.Context) {
		s.file(c, "text/csv; charset=utf-8", "names.csv", s.App.NamesCSV(c.Request.Context(), c.Param("id")))
	})
	r.GET("/cards/:id/meanings", func(c *gin.Context) {
		v, err := s.App.Meanings(c.Request.Context(), c.Param("id"), card.DifferBy(c.Query("what")), c.Query("column"))
		answer(s, c, v, err)
	})
	r.GET("/cards/:id/sheets/:n/ink.png", func(c *gin.Context) {
		if opt, ok := s.options(c); ok {
			raw, err := s.App.SheetInk(c.Request.Context(), c.Param("id"), opt, s.number(c))
			s.picture(c, "image/png", raw, err, "no-cache")
		}
	})
	r.POST("/lists", s.readNames)
}

// ListRead is a list of names that was read, as the commands that bring it in: with the first row naming the
// columns, and with columns of plain names. Headings says which of the two seems to be meant.
type ListRead struct {
	Headings bool          `json:"headings"`
	Headed   card.SetNames `json:"headed"`
	Plain    card.SetNames `json:"plain"`
	// Encoding is how its letters were told to be written, where that is not Unicode.
	Encoding string `json:"encoding,omitempty"`
}

func (s *server) readNames(c *gin.Context) {
	name, raw, ok := s.upload(c, "a table with a row for each name, as CSV or XLSX")
	if !ok {
		return
	}
	l, err := s.App.ReadNames(c.Request.Context(), raw, c.Query("encoding"))
	if err != nil {
		s.fail(c, err)
		return
	}
	if c.Query("pasted") == "1" {
		name = ""
	}
	answer(s, c, ListRead{l.Headings, l.Names(name, true), l.Names(name, false), l.Encoding}, nil)
}
