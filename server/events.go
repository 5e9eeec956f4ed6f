package server

import (
	"net/http"
	"time"

	"github.com/gin-contrib/sse"
	"github.com/gin-gonic/gin"
)

// events streams what happens as server-sent events, with a comment now and
// then so that a dead connection is noticed.
func (s *server) events(c *gin.Context) {
	list, end := s.App.Events.Listen()
	defer end()
	// A stream has no end that a deadline could be set to.
	_ = http.NewResponseController(c.Writer).SetWriteDeadline(time.Time{})
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
	beat := time.NewTicker(20 * time.Second)
	defer beat.Stop()
	for {
		select {
		case e := <-list:
			if !send(e.Kind, e) {
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
