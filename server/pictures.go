package server

import (
	"fmt"
	"net/http"
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
