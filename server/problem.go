package server

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/picture"
	"sectilis/core/ground/measure"
)

// Problem is an error as RFC 9457 has it. Detail is written for the person.
type Problem struct {
	Type   string `json:"type"`
	Title  string `json:"title"`
	Status int    `json:"status"`
	Detail string `json:"detail"`
	// Field is the part of the request at fault, where there is one.
	Field string `json:"field,omitempty"`
}

func problem(c *gin.Context, status int, kind, detail, field string) {
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(status, Problem{"urn:sectilis:" + kind, http.StatusText(status), status, detail, field})
}

// damagedCard says that a card cannot be read, and whether an earlier state of it can.
func damagedCard(c *gin.Context, d *app.Damaged) {
	if d.Last == 0 {
		problem(c, http.StatusUnprocessableEntity, "lost", "The card is there, but neither its newest state nor an earlier one can be read. It may have been written by a newer version of Sectilis, or the file is damaged.", "id")
		return
	}
	problem(c, http.StatusUnprocessableEntity, "damaged", fmt.Sprintf("The newest state of this card cannot be read: it was written by a newer version of Sectilis, or it is damaged. The last one that can be read is of %s. Taking that up changes nothing of what is there.", d.At.Format("2 January 2006, 15:04")), "id")
}

// fail answers with the problem that the error is.
func (s *server) fail(c *gin.Context, err error) {
	var refusal *card.Refusal
	var bad *picture.Error
	var unread *lettering.Error
	var text *measure.Error
	var large *http.MaxBytesError
	var damaged *app.Damaged
	var away *app.AwayError
	switch {
	case errors.As(err, &refusal):
		problem(c, http.StatusUnprocessableEntity, "refused", refusal.Why, refusal.Field)
	case errors.As(err, &bad):
		problem(c, http.StatusUnprocessableEntity, "picture", bad.Why, "file")
	case errors.As(err, &unread):
		problem(c, http.StatusUnprocessableEntity, "font", unread.Why, "file")
	case errors.As(err, &text):
		problem(c, http.StatusUnprocessableEntity, "measure", text.Why, "text")
	case errors.As(err, &large):
		problem(c, http.StatusRequestEntityTooLarge, "too-large", "This is more than the 64 MB that can be sent at once.", "file")
	case errors.Is(err, app.ErrStale):
		problem(c, http.StatusConflict, "stale", "The card has been changed in another window. It has been brought up to date here; do it again.", "base")
	case errors.As(err, &damaged):
		damagedCard(c, damaged)
	case errors.Is(err, app.ErrFull):
		problem(c, http.StatusInsufficientStorage, "full", "The disk that the cards are kept on is full: nothing was changed. Make room; then it goes on.", "")
	case errors.Is(err, app.ErrMissing):
		problem(c, http.StatusConflict, "missing", err.Error(), "")
	case errors.Is(err, app.ErrBusy):
		problem(c, http.StatusConflict, "busy", err.Error(), "")
	case errors.Is(err, app.ErrNothing):
		problem(c, http.StatusConflict, "nothing", "There is nothing to undo or redo.", "")
	case errors.As(err, &away):
		problem(c, http.StatusServiceUnavailable, "away", away.Why, "")
	case errors.Is(err, app.ErrNotFound):
		problem(c, http.StatusNotFound, "not-found", "This is not there, or not any more.", "id")
	case c.Request.Context().Err() != nil:
		c.Abort() // nobody listens
	default:
		s.Log.Error("request failed", "path", c.Request.URL.Path, "err", err)
		problem(c, http.StatusInternalServerError, "fault", "Something went wrong inside. Nothing was changed.", "")
	}
}
