package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"sectilis/app"
)

func (s *server) supplies(c *gin.Context) {
	all, err := s.App.Supplies(c.Request.Context())
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, all)
}

func (s *server) note(c *gin.Context) {
	var u app.Supply
	if !s.read(c, &u) {
		return
	}
	u.Kind, u.ID = c.Param("kind"), c.Param("id")
	s.done(c, s.App.NoteSupply(c.Request.Context(), u))
}

func (s *server) used(c *gin.Context) {
	s.done(c, s.App.UsedSupply(c.Request.Context(), c.Param("kind"), c.Param("id")))
}

func (s *server) removePicture(c *gin.Context) {
	s.done(c, s.App.RemovePicture(c.Request.Context(), c.Param("id")))
}

func (s *server) sketches(c *gin.Context) {
	all, err := s.App.Sketches(c.Request.Context())
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, all)
}

func (s *server) keepSketch(c *gin.Context) {
	var n app.NewSketch
	if !s.read(c, &n) {
		return
	}
	k, err := s.App.KeepSketch(c.Request.Context(), c.Param("id"), n)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, k)
}

func (s *server) removeSketch(c *gin.Context) {
	s.done(c, s.App.RemoveSketch(c.Request.Context(), c.Param("id")))
}

// FromSketch is a card to be started from a sketch, with pictures for its slots.
type FromSketch struct {
	Title    string   `json:"title"`
	Pictures []string `json:"pictures"`
}

func (s *server) startFromSketch(c *gin.Context) {
	var f FromSketch
	if !s.read(c, &f) {
		return
	}
	id, err := s.App.StartFromSketch(c.Request.Context(), c.Param("id"), f.Title, f.Pictures)
	s.created(c, id, err)
}

func (s *server) sketchPicture(c *gin.Context) {
	raw, err := s.App.SketchPicture(c.Request.Context(), c.Param("id"))
	s.picture(c, "image/png", raw, err, "max-age=3600") // a sketch never changes
}

// done answers a request that has nothing to tell.
func (s *server) done(c *gin.Context, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}
