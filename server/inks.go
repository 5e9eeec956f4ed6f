package server

import (
	"github.com/gin-gonic/gin"
)

// inks are the routes of how the printer lays colours down on a stock. Each answers what is known
// then.
func (s *server) inks(r *gin.RouterGroup) {
	known := func(c *gin.Context, err error) {
		if err != nil {
			s.fail(c, err)
			return
		}
		all, err := s.App.Inks(c.Request.Context())
		answer(s, c, all, err)
	}
	r.GET("/printer/inks", func(c *gin.Context) { known(c, nil) })
	r.POST("/stocks/:stock/profile", func(c *gin.Context) {
		if name, raw, ok := s.upload(c, "a profile of your printer, .icc or .icm"); ok {
			known(c, s.App.BringInProfile(c.Request.Context(), c.Param("stock"), name, raw))
		}
	})
	r.DELETE("/stocks/:stock/profile", func(c *gin.Context) {
		known(c, s.App.WithoutProfile(c.Request.Context(), c.Param("stock")))
	})
	r.POST("/stocks/:stock/tones", func(c *gin.Context) {
		if ref := c.Query("print"); ref != "" {
			known(c, s.App.MeasurePrinted(c.Request.Context(), c.Param("stock"), ref))
			return
		}
		if name, raw, ok := s.upload(c, "a scan or photo of the test page"); ok {
			known(c, s.App.MeasureColours(c.Request.Context(), c.Param("stock"), name, raw))
		}
	})
	r.DELETE("/stocks/:stock/tones", func(c *gin.Context) {
		known(c, s.App.AsTonesCome(c.Request.Context(), c.Param("stock")))
	})
}
