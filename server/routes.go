package server

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/lettering"
	"sectilis/core/measure"
	"sectilis/core/paper"
	"sectilis/core/sheet"
)

func (s *server) routes(r *gin.RouterGroup) {
	r.GET("/catalogue", s.catalogue)
	r.GET("/papers/:file", s.paper)
	r.POST("/measures", s.measure)
	r.POST("/settings", s.setWords)
	r.GET("/events", s.events)

	r.GET("/cards", s.cards)
	r.POST("/cards", s.create)
	r.GET("/cards/:id", s.open)
	r.DELETE("/cards/:id", s.remove)
	r.POST("/cards/:id/restore", s.restore)
	r.POST("/cards/:id/copies", s.duplicate)
	r.POST("/cards/:id/changes", s.change)
	r.POST("/cards/:id/undo", s.undo)
	r.POST("/cards/:id/redo", s.redo)
	r.GET("/cards/:id/front.png", s.front)

	r.GET("/cards/:id/sheets", s.sheets)
	r.GET("/cards/:id/sheets.pdf", s.pdf)
	r.GET("/cards/:id/sheets/:n/lines.svg", s.svg)
	r.GET("/cards/:id/sheets/:n/run.hpgl", s.hpgl)
	r.POST("/cards/:id/prints", s.print)
	r.POST("/cards/:id/sheets/:n/runs", s.run)
	r.GET("/prints/:ref", s.printed)
	r.GET("/runs/:file", s.runPicture)
	r.GET("/cutter", func(c *gin.Context) { c.JSON(http.StatusOK, s.App.CutterState(c.Request.Context())) })
	r.GET("/jobs/:id", s.job)
	r.DELETE("/jobs/:id", s.stop)

	r.GET("/pictures", s.pictures)
	r.POST("/pictures", s.bringIn)
	r.GET("/pictures/:id/preview", s.preview)
}

// read decodes the body strictly into v; it has answered when it returns false.
func (s *server) read(c *gin.Context, v any) bool {
	dec := json.NewDecoder(http.MaxBytesReader(c.Writer, c.Request.Body, maxJSON))
	dec.DisallowUnknownFields()
	err := dec.Decode(v)
	if err == nil && dec.More() {
		err = errors.New("more than one value")
	}
	var large *http.MaxBytesError
	if errors.As(err, &large) {
		problem(c, http.StatusRequestEntityTooLarge, "too-large", "This is more than can be changed at once.", "")
		return false
	}
	if err != nil {
		problem(c, http.StatusBadRequest, "malformed", "The request is no JSON that can be read here: "+err.Error()+".", "body")
		return false
	}
	return true
}

// Catalogue is what there is to choose from.
type Catalogue struct {
	Stocks []card.Stock     `json:"stocks"`
	Trades []card.Trade     `json:"trades"`
	Foam   []float64        `json:"foam"`
	Papers []paper.Paper    `json:"papers"`
	Fonts  []lettering.Font `json:"fonts"`
	Sizes  []sheet.Size     `json:"sizes"`
}

func (s *server) catalogue(c *gin.Context) {
	c.JSON(http.StatusOK, Catalogue{card.Stocks(), card.Trades(), card.Foam, paper.Papers(), lettering.Fonts(), sheet.Sizes()})
}

func (s *server) paper(c *gin.Context) {
	p, ok := paper.ByID(strings.TrimSuffix(c.Param("file"), ".svg"))
	if !ok {
		s.fail(c, app.ErrNotFound)
		return
	}
	c.Header("Cache-Control", "max-age=86400")
	c.Data(http.StatusOK, "image/svg+xml", []byte(p.SVG()))
}

func (s *server) font(c *gin.Context) {
	raw := lettering.File(strings.TrimSuffix(c.Param("file"), ".woff"))
	if raw == nil {
		s.fail(c, app.ErrNotFound)
		return
	}
	c.Header("Cache-Control", "max-age=86400")
	c.Data(http.StatusOK, "font/woff", raw)
}

// Measure is a typed length.
type Measure struct {
	Text string       `json:"text"`
	Unit measure.Unit `json:"unit"`
}

// Length is a length in mm.
type Length struct {
	MM float64 `json:"mm"`
}

func (s *server) measure(c *gin.Context) {
	var m Measure
	if !s.read(c, &m) {
		return
	}
	mm, err := measure.Parse(m.Text, m.Unit)
	if err != nil {
		var typed *measure.Error
		if !errors.As(err, &typed) {
			err = &card.Refusal{Field: "unit", Why: err.Error()}
		}
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Length{mm})
}

// WordsSet is lettering as it would be, before it is changed in the card.
type WordsSet struct {
	Outline geom.Path `json:"outline"`
	Block   geom.Rect `json:"block"`
	Missing string    `json:"missing,omitempty"`
}

func (s *server) setWords(c *gin.Context) {
	var w card.Words
	if !s.read(c, &w) {
		return
	}
	if len(w.Text) > 8000 {
		s.fail(c, &card.Refusal{Field: "text", Why: "This is more than lettering holds."})
		return
	}
	set, err := lettering.Set(w)
	if err != nil {
		s.fail(c, &card.Refusal{Field: "font", Why: err.Error()})
		return
	}
	c.JSON(http.StatusOK, WordsSet{set.Outline, set.Block, set.Missing})
}

func (s *server) cards(c *gin.Context) {
	all, err := s.App.Cards(c.Request.Context(), c.Query("find"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, all)
}

// NewCard is a card to put on the table.
type NewCard struct {
	Title string    `json:"title"`
	Base  card.Base `json:"base"`
}

// CardRef names a card.
type CardRef struct {
	ID string `json:"id"`
}

func (s *server) create(c *gin.Context) {
	var n NewCard
	if !s.read(c, &n) {
		return
	}
	doc, err := card.New(n.Title, n.Base)
	if err != nil {
		s.fail(c, err)
		return
	}
	id, err := s.App.Create(c.Request.Context(), doc)
	s.created(c, id, err)
}

func (s *server) duplicate(c *gin.Context) {
	id, err := s.App.Duplicate(c.Request.Context(), c.Param("id"))
	s.created(c, id, err)
}

func (s *server) created(c *gin.Context, id string, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, CardRef{id})
}

func (s *server) remove(c *gin.Context) {
	if err := s.App.Remove(c.Request.Context(), c.Param("id")); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *server) restore(c *gin.Context) {
	if err := s.App.Restore(c.Request.Context(), c.Param("id")); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *server) open(c *gin.Context) {
	v, err := s.App.Open(c.Request.Context(), c.Param("id"))
	s.view(c, v, err)
}

func (s *server) view(c *gin.Context, v app.View, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, v)
}

// Change is a batch of commands on top of a revision.
type Change struct {
	Base     int64             `json:"base"`
	Commands []json.RawMessage `json:"commands,omitempty"`
}

func (s *server) change(c *gin.Context) {
	var ch Change
	if !s.read(c, &ch) {
		return
	}
	var commands []card.Command
	for _, raw := range ch.Commands {
		cmd, err := card.Decode(raw)
		if err != nil {
			s.fail(c, err)
			return
		}
		commands = append(commands, cmd)
	}
	v, err := s.App.Change(c.Request.Context(), c.Param("id"), ch.Base, commands)
	s.view(c, v, err)
}

func (s *server) undo(c *gin.Context) {
	var ch Change
	if s.read(c, &ch) {
		v, err := s.App.Undo(c.Request.Context(), c.Param("id"), ch.Base)
		s.view(c, v, err)
	}
}

func (s *server) redo(c *gin.Context) {
	var ch Change
	if s.read(c, &ch) {
		v, err := s.App.Redo(c.Request.Context(), c.Param("id"), ch.Base)
		s.view(c, v, err)
	}
}

func (s *server) front(c *gin.Context) {
	raw, err := s.App.Thumbnail(c.Request.Context(), c.Param("id"))
	s.picture(c, "image/png", raw, err, "no-cache")
}

func (s *server) picture(c *gin.Context, kind string, raw []byte, err error, cache string) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Cache-Control", cache)
	c.Data(http.StatusOK, kind, raw)
}

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

// options reads the paper from the query.
func (s *server) options(c *gin.Context) (sheet.Options, bool) {
	sizes := sheet.Sizes()
	opt := sheet.Defaults(sizes[0])
	for _, size := range sizes {
		if size.ID == c.Query("size") {
			opt.Size = size
		}
	}
	for name, v := range map[string]*float64{"margin": &opt.Margin, "between": &opt.Between} {
		if text := c.Query(name); text != "" {
			mm, err := strconv.ParseFloat(text, 64)
			if err != nil {
				s.fail(c, &card.Refusal{Field: name, Why: "“" + text + "” is no length in millimetres."})
				return opt, false
			}
			*v = mm
		}
	}
	return opt, true
}

func (s *server) sheets(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		l, err := s.App.Layout(c.Request.Context(), c.Param("id"), opt)
		if err != nil {
			s.fail(c, err)
			return
		}
		c.JSON(http.StatusOK, l)
	}
}

// file answers with what write writes, once all of it could be written.
func (s *server) file(c *gin.Context, kind, name string, write func(io.Writer) error) {
	var b bytes.Buffer
	if err := write(&b); err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="`+name+`"`)
	c.Data(http.StatusOK, kind, b.Bytes())
}

func (s *server) number(c *gin.Context) int {
	n, err := strconv.Atoi(c.Param("n"))
	if err != nil {
		return -1 // there is no such sheet
	}
	return n
}

func (s *server) pdf(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		n, _ := strconv.Atoi(c.Query("sheet")) // none is all
		s.file(c, "application/pdf", "sheets.pdf", func(w io.Writer) error {
			return s.App.WritePDF(c.Request.Context(), w, c.Param("id"), opt, n, c.Query("lines") == "1")
		})
	}
}

func (s *server) svg(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		s.file(c, "image/svg+xml", "sheet-"+c.Param("n")+".svg", func(w io.Writer) error {
			return s.App.WriteSVG(c.Request.Context(), w, c.Param("id"), opt, s.number(c))
		})
	}
}

func (s *server) hpgl(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		s.file(c, "application/vnd.hp-hpgl", "sheet-"+c.Param("n")+".hpgl", func(w io.Writer) error {
			return s.App.WriteHPGL(c.Request.Context(), w, c.Param("id"), opt, s.number(c))
		})
	}
}

func (s *server) print(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		j, err := s.App.Print(c.Request.Context(), c.Param("id"), opt)
		s.accepted(c, j, err)
	}
}

func (s *server) run(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		j, err := s.App.Run(c.Request.Context(), c.Param("id"), opt, s.number(c))
		s.accepted(c, j, err)
	}
}

func (s *server) accepted(c *gin.Context, j app.Job, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusAccepted, j)
}

func (s *server) printed(c *gin.Context) {
	raw, err := s.App.Printed(c.Request.Context(), c.Param("ref"))
	s.picture(c, "image/png", raw, err, "no-cache")
}

func (s *server) runPicture(c *gin.Context) {
	raw, err := s.App.RunPicture(strings.TrimSuffix(c.Param("file"), ".png"))
	s.picture(c, "image/png", raw, err, "no-cache")
}

func (s *server) job(c *gin.Context) {
	j, err := s.App.Job(c.Param("id"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, j)
}

func (s *server) stop(c *gin.Context) {
	if err := s.App.StopJob(c.Param("id")); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusAccepted)
}
