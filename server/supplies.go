package server

import (
	"errors"
	"io"
	"mime/multipart"
	"net/http"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
)

func (s *server) supplies(c *gin.Context) {
	all, err := s.App.Supplies(c.Request.Context())
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, all)
}

// suppliesFile answers with all supplies of a person's own as one file.
func (s *server) suppliesFile(c *gin.Context) {
	c.Header("Content-Type", "application/zip")
	c.Header("Content-Disposition", `attachment; filename="supplies.zip"`)
	out := &counted{Writer: c.Writer}
	if err := s.App.WriteSupplies(c.Request.Context(), out); err != nil {
		if out.n > 0 {
			panic(http.ErrAbortHandler) // what has gone out is cut off: nobody takes it for whole
		}
		c.Header("Content-Disposition", "")
		s.fail(c, err)
	}
}

// cardFile answers with a card and all that it is made with as one file.
func (s *server) cardFile(c *gin.Context) {
	s.file(c, "application/zip", "card.sectilis", func(w io.Writer) error {
		return s.App.WriteCard(c.Request.Context(), w, c.Param("id"))
	})
}

// bringCard takes a file of a card. It lies on the disk while it is read.
func (s *server) bringCard(c *gin.Context) {
	file, size, ok := s.large(c, "a file of a card")
	if !ok {
		return
	}
	defer func() { _ = file.Close() }() // only read from
	in, err := s.App.ReadCard(c.Request.Context(), file, size)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, in)
}

func (s *server) credits(c *gin.Context) {
	all, err := s.App.Credits(c.Request.Context(), c.Param("id"))
	answer(s, c, all, err)
}

// counted counts what goes through it.
type counted struct {
	io.Writer
	n int
}

// Write implements io.Writer. It fails when what it writes to does.
func (w *counted) Write(p []byte) (int, error) {
	n, err := w.Writer.Write(p)
	w.n += n
	return n, err
}

// maxSupplies is the largest file of supplies that is taken.
const maxSupplies = 2 << 30

// bringSupplies takes a file of supplies. It lies on the disk while it is read.
func (s *server) bringSupplies(c *gin.Context) {
	file, size, ok := s.large(c, "a file of supplies")
	if !ok {
		return
	}
	defer func() { _ = file.Close() }() // only read from
	in, err := s.App.ReadSupplies(c.Request.Context(), file, size)
	answer(s, c, in, err)
}

// large opens a large file of a form, which lies on the disk; it has answered when it returns false.
func (s *server) large(c *gin.Context, what string) (f multipart.File, size int64, ok bool) {
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, maxSupplies)
	file, header, err := c.Request.FormFile("file")
	if err != nil {
		var large *http.MaxBytesError
		if !errors.As(err, &large) {
			err = &card.Refusal{Field: "file", Why: "No file was sent. Choose " + what + "."}
		}
		s.fail(c, err)
		return nil, 0, false
	}
	return file, header.Size, true
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
