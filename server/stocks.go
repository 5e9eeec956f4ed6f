package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/production/sheet"
)

// stocks are the routes of the kinds of paper that there are.
func (s *server) stocks(r *gin.RouterGroup) {
	r.GET("/stocks", func(c *gin.Context) {
		all, err := s.App.Stocks(c.Request.Context())
		answer(s, c, all, err)
	})
	r.POST("/stocks", func(c *gin.Context) {
		var m app.MeasuredStock
		if !s.read(c, &m) {
			return
		}
		added, err := s.App.AddStock(c.Request.Context(), m)
		if err != nil {
			s.fail(c, err)
			return
		}
		c.JSON(http.StatusCreated, added)
	})
	r.PUT("/stocks/:stock", func(c *gin.Context) {
		var m app.MeasuredStock
		if s.read(c, &m) {
			m.ID = c.Param("stock")
			s.done(c, s.App.ChangeStock(c.Request.Context(), m))
		}
	})
	r.PUT("/sizes", func(c *gin.Context) {
		var sizes []sheet.Size
		if s.read(c, &sizes) {
			s.done(c, s.App.KeepSizes(c.Request.Context(), sizes))
		}
	})
	r.DELETE("/stocks/:stock", func(c *gin.Context) {
		s.done(c, s.App.AsStockShips(c.Request.Context(), c.Param("stock")))
	})
}
