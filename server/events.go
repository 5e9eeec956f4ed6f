package server

import (
	"cmp"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/gin-contrib/sse"
	"github.com/gin-gonic/gin"
)

// eventsPath is where events are streamed; what is sent there is not compressed, since
// it has to go out at once and without a time limit.
const eventsPath = "/api/events"

// events streams what happens as server-sent events, with a comment now and
// then so that a dead connection is noticed.
func (s *server) events(c *gin.Context) {
	list, end := s.App.Events.Listen()
	defer end()
	// A stream has no end that a deadline could be set to; what is behind a writer that
	// does not pass this on is cut off after the server's limit, and has to be told.
	control := http.NewResponseController(c.Writer)
	if err := errors.Join(control.SetWriteDeadline(time.Time{}), control.SetReadDeadline(time.Time{})); err != nil {
		s.fail(c, fmt.Errorf("take the time limit off the event stream: %w", err))
		return
	}
	c.Header("Content-Type", "text/event-stream")
	c.Header("Cache-Control", "no-store")
	c.Status(http.StatusOK)
	send := func(name string, data any) bool {
		if err := sse.Encode(c.Writer, sse.Event{Event: name, Data: data}); err != nil {
			return false
		}
		c.Writer.Flush()
		return true
	}
	if !send("hello", struct{}{}) {
		return
	}
	beat := time.NewTicker(cmp.Or(s.Beat, 20*time.Second))
	defer beat.Stop()
	for {
		select {
		case e := <-list:
			if !send(string(e.Kind), e) {
				return
			}
		case <-beat.C:
			if !send("beat", struct{}{}) {
				return
			}
		case <-c.Request.Context().Done():
			return
		}
	}
}
