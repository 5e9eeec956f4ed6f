package server

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"path/filepath"
	"slices"
	"strconv"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/card"
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
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, maxUpload+1<<20)
	file, header, err := c.Request.FormFile("file")
	if err != nil {
		var large *http.MaxBytesError
		if !errors.As(err, &large) {
			err = &card.Refusal{Field: "file", Why: "No file was sent. Choose a JPEG, PNG or WebP picture."}
		}
		s.fail(c, err)
		return
	}
	defer func() { _ = file.Close() }() // only read from
	if header.Size > maxUpload {
		s.fail(c, &http.MaxBytesError{Limit: maxUpload})
		return
	}
	raw, err := io.ReadAll(file)
	if err != nil {
		s.fail(c, err)
		return
	}
	p, err := s.App.BringIn(c.Request.Context(), filepath.Base(header.Filename), raw)
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
