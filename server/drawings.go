package server

import (
	"errors"
	"io"
	"net/http"
	"path/filepath"
	"strings"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/format"
	"sectilis/core/ground/geom"
)

// upload reads the one file of a form; it has answered when it returns false.
func (s *server) upload(c *gin.Context, kinds string) (name string, raw []byte, ok bool) {
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, maxUpload+1<<20)
	file, header, err := c.Request.FormFile("file")
	if err != nil {
		var large *http.MaxBytesError
		if !errors.As(err, &large) {
			err = &card.Refusal{Field: "file", Why: "No file was sent. Choose " + kinds + "."}
		}
		s.fail(c, err)
		return "", nil, false
	}
	defer func() { _ = file.Close() }() // only read from
	if header.Size > maxUpload {
		s.fail(c, &http.MaxBytesError{Limit: maxUpload})
		return "", nil, false
	}
	raw, err = io.ReadAll(file)
	if err != nil {
		s.fail(c, err)
		return "", nil, false
	}
	return filepath.Base(header.Filename), raw, true
}

func (s *server) readDrawing(c *gin.Context) {
	name, raw, ok := s.upload(c, "an SVG, DXF or HP-GL drawing")
	if !ok {
		return
	}
	in, err := s.App.ReadDrawing(c.Request.Context(), name, raw)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, in)
}

func (s *server) drawingPreview(c *gin.Context) {
	var b strings.Builder
	if err := s.App.DrawingPreview(c.Request.Context(), &b, c.Param("id")); err != nil {
		s.fail(c, err)
		return
	}
	c.Data(http.StatusOK, "image/svg+xml", []byte(b.String()))
}

func (s *server) readBase(c *gin.Context) {
	var ask app.BaseAsk
	if !s.read(c, &ask) {
		return
	}
	found, err := s.App.ReadBase(c.Request.Context(), c.Param("id"), ask)
	answer(s, c, found, err)
}

// LayDrawing lays a drawing that was read on a face, on top of a revision.
type LayDrawing struct {
	Base int64 `json:"base"`
	app.Laying
}

func (s *server) layDrawing(c *gin.Context) {
	var l LayDrawing
	if s.read(c, &l) {
		v, err := s.App.LayDrawing(c.Request.Context(), c.Param("id"), l.Base, l.Laying)
		s.view(c, v, err)
	}
}

// ofFace answers with a file that is made of a face.
func (s *server) ofFace(c *gin.Context) {
	if c.Param("file") == "look.png" {
		raw, err := s.App.FaceLook(c.Request.Context(), c.Param("id"), card.FaceID(c.Param("face")), c.Query("piece"))
		s.picture(c, "image/png", raw, err, "max-age=3600") // the address names the revision
		return
	}
	if c.Param("file") == "print.png" {
		raw, err := s.App.FacePrint(c.Request.Context(), c.Param("id"), card.FaceID(c.Param("face")))
		s.picture(c, "image/png", raw, err, "max-age=3600")
		return
	}
	s.outlines(c)
}

func (s *server) outlines(c *gin.Context) {
	_, id, _ := strings.Cut(c.Param("file"), ".")
	as, ok := format.ByID(id)
	if !ok {
		s.fail(c, app.ErrNotFound)
		return
	}
	var items []string
	if q := c.Query("items"); q != "" {
		items = strings.Split(q, ",")
	}
	face := card.FaceID(c.Param("face"))
	s.file(c, as.MIME, "outlines"+as.Extensions[0], func(w io.Writer) error {
		return s.App.WriteOutlines(c.Request.Context(), w, c.Param("id"), face, items, as.ID)
	})
}

// Place is a place on a face, mm.
type Place struct {
	At geom.Point `json:"at"`
}

func (s *server) fits(c *gin.Context) {
	all, err := s.App.Fits(c.Request.Context(), c.Param("id"), c.Param("item"))
	answer(s, c, all, err)
}

func (s *server) points(c *gin.Context) {
	p, err := s.App.Points(c.Request.Context(), c.Param("id"), c.Param("item"))
	answer(s, c, p, err)
}

func (s *server) plainForms(c *gin.Context) {
	all, err := s.App.PlainForms(c.Request.Context(), c.Param("id"), c.Param("item"))
	answer(s, c, all, err)
}

func (s *server) gap(c *gin.Context) {
	var p Place
	if !s.read(c, &p) {
		return
	}
	gap, err := s.App.Gap(c.Request.Context(), c.Param("id"), card.FaceID(c.Param("face")), p.At)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, gap)
}
