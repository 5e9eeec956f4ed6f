package server

import (
	"context"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

func (s *server) machine(r *gin.RouterGroup) {
	r.POST("/cards/:id/sheets/:n/runs", s.run)
	r.POST("/cards/:id/sheets/:n/loads", func(c *gin.Context) { s.atCutter(c, s.App.Load) })
	r.POST("/cards/:id/sheets/:n/finds", func(c *gin.Context) { s.atCutter(c, s.App.FindMarks) })
	r.POST("/cards/:id/sheets/:n/tests", func(c *gin.Context) { s.atCutter(c, s.App.TestCut) })
	r.PUT("/stocks/:stock/settings", s.keepSettings)
	r.GET("/runs/:file", s.runPicture)
	r.GET("/cutter", func(c *gin.Context) { c.JSON(http.StatusOK, s.App.CutterState(c.Request.Context())) })
	r.DELETE("/cutter/mat", func(c *gin.Context) { s.done(c, s.App.Unload(c.Request.Context())) })
	r.PUT("/cutter/mishap", s.mishap)
	r.GET("/cutter/named", func(c *gin.Context) { c.JSON(http.StatusOK, s.App.Named()) })
	r.PUT("/cutter/named", s.useCutter)
	r.GET("/machines", func(c *gin.Context) {
		all, err := s.App.Machines(c.Request.Context())
		answer(s, c, all, err)
	})
	r.DELETE("/machines/:name", func(c *gin.Context) { s.done(c, s.App.ForgetMachine(c.Request.Context(), c.Param("name"))) })
	r.GET("/jobs", func(c *gin.Context) { c.JSON(http.StatusOK, s.App.Jobs()) })
	r.POST("/jobs/:id/:what", s.hold)
}

func (s *server) run(c *gin.Context) {
	s.atCutter(c, func(ctx context.Context, id string, opt sheet.Options, n int) (app.Job, error) {
		from, err := fromOf(c)
		if err != nil {
			return app.Job{}, err
		}
		return s.App.Run(ctx, id, opt, n, from)
	})
}

// fromOf reads where a run begins: goOn=1, and with it pass and path where a person has
// pointed at the first path that is not cut.
func fromOf(c *gin.Context) (app.From, error) {
	from := app.From{GoOn: c.Query("goOn") == "1"}
	pass, path := c.Query("pass"), c.Query("path")
	if pass == "" && path == "" {
		return from, nil
	}
	i, err := strconv.Atoi(pass)
	j, err2 := strconv.Atoi(path)
	if err != nil || err2 != nil {
		return from, card.Refuse("from", "A path is named by the numbers of its pass and of itself, from 0.")
	}
	from.Path = &app.PathOf{Pass: i, Path: j}
	return from, nil
}

func (s *server) atCutter(c *gin.Context, do func(context.Context, string, sheet.Options, int) (app.Job, error)) {
	if opt, ok := s.options(c); ok {
		j, err := do(c.Request.Context(), c.Param("id"), opt, s.number(c))
		s.accepted(c, j, err)
	}
}

// keepSettings notes how a stock is cut.
func (s *server) keepSettings(c *gin.Context) {
	var with cut.Settings
	if !s.read(c, &with) {
		return
	}
	s.done(c, s.App.KeepSettings(c.Request.Context(), c.Param("stock"), with))
}

func (s *server) runPicture(c *gin.Context) {
	raw, err := s.App.RunPicture(c.Request.Context(), strings.TrimSuffix(c.Param("file"), ".png"))
	s.picture(c, "image/png", raw, err, "no-cache")
}

// mishap lets something go wrong at a stand-in.
func (s *server) mishap(c *gin.Context) {
	var m app.Mishap
	if s.read(c, &m) {
		s.done(c, s.App.Mishap(c.Request.Context(), m))
	}
}

// useCutter takes another cutter.
func (s *server) useCutter(c *gin.Context) {
	var o app.OtherCutter
	if s.read(c, &o) {
		s.done(c, s.App.UseCutter(c.Request.Context(), o))
	}
}

// hold holds a job up (pause), or lets one that waits go on (resume).
func (s *server) hold(c *gin.Context) {
	what := c.Param("what")
	if what != "pause" && what != "resume" {
		s.fail(c, app.ErrNotFound)
		return
	}
	s.done(c, s.App.HoldJob(c.Param("id"), what == "pause"))
}
