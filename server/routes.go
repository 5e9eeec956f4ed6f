package server

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/check"
	"sectilis/core/document/card"
	"sectilis/core/document/lettering"
	"sectilis/core/document/pattern"
	"sectilis/core/document/scene"
	"sectilis/core/folding/fold"
	"sectilis/core/format"
	"sectilis/core/format/namelist"
	"sectilis/core/ground/edging"
	"sectilis/core/ground/geom"
	"sectilis/core/ground/measure"
	"sectilis/core/ground/shape"
	"sectilis/core/production/sheet"
)

func (s *server) routes(r *gin.RouterGroup) {
	r.GET("/catalogue", s.catalogue)
	s.papers(r)
	r.POST("/measures", s.measure)
	r.POST("/typesettings", s.setWords)
	r.GET(strings.TrimPrefix(eventsPath, "/api"), s.events)

	r.GET("/cards", s.cards)
	r.POST("/cards", s.create)
	r.GET("/cards/:id", s.open)
	r.DELETE("/cards/:id", s.remove)
	r.POST("/cards/:id/restore", s.restore)
	r.POST("/cards/:id/recovery", func(c *gin.Context) {
		v, err := s.App.Recover(c.Request.Context(), c.Param("id"))
		answer(s, c, v, err)
	})
	r.POST("/cards/:id/copies", s.duplicate)
	r.POST("/cards/:id/changes", s.change)
	r.POST("/cards/:id/trials", s.try)
	r.POST("/cards/:id/trials/sheets", s.trySheets)
	r.POST("/cards/:id/undo", s.undo)
	r.POST("/cards/:id/redo", s.redo)
	r.GET("/cards/:id/standing.png", s.standing)
	r.GET("/cards/:id/fold", s.fold)
	r.POST("/cards/:id/envelope", func(c *gin.Context) {
		id, err := s.App.MakeEnvelope(c.Request.Context(), c.Param("id"))
		answer(s, c, CardRef{ID: id}, err)
	})
	r.DELETE("/cards/:id/tie", func(c *gin.Context) { s.done(c, s.App.Untie(c.Request.Context(), c.Param("id"))) })
	r.GET("/cards/:id/directions", s.directions)
	r.GET("/cards/:id/directions.pdf", s.directionsPDF)

	r.GET("/cards/:id/file", s.cardFile)
	r.GET("/cards/:id/credits", s.credits)
	r.GET("/cards/:id/check", s.check)
	r.POST("/cards/:id/cuts", s.cut)
	r.GET("/cards/:id/assembly", s.assembly)
	r.GET("/cards/:id/assembly/:file", s.stepPicture)
	r.GET("/cards/:id/assembly.pdf", s.guide)
	r.GET("/cards/:id/folding.png", s.folding)
	r.GET("/cards/:id/folding/stills.png", s.stills)
	r.PUT("/cards/:id/assembly/:step/done", s.tickStep)
	r.GET("/posts", s.posts)
	r.PUT("/posts", s.setPosts)
	r.POST("/cards/files", s.bringCard)
	r.POST("/drawings", s.readDrawing)
	r.GET("/drawings/:id/preview.svg", s.drawingPreview)
	r.POST("/drawings/:id/base", s.readBase)
	r.POST("/cards/:id/drawings", s.layDrawing)
	r.GET("/cards/:id/faces/:face/:file", s.ofFace)
	r.POST("/cards/:id/faces/:face/gaps", s.gap)
	r.GET("/cards/:id/items/:item/fits", s.fits)
	r.GET("/cards/:id/items/:item/forms", s.plainForms)
	r.GET("/cards/:id/items/:item/points", s.points)
	r.POST("/cards/:id/faces/:face/colours", s.colourAt)
	r.GET("/cards/:id/print", func(c *gin.Context) {
		v, err := s.App.Prints(c.Request.Context(), c.Param("id"))
		answer(s, c, v, err)
	})

	r.GET("/printer/correction", s.trueSize)
	r.PUT("/printer/correction", s.measured)
	r.DELETE("/printer/correction", func(c *gin.Context) { s.done(c, s.App.AsItComes(c.Request.Context())) })
	r.POST("/printer/tests", s.testPage)
	r.GET("/printer/reach", func(c *gin.Context) {
		reach, err := s.App.PrinterReach(c.Request.Context())
		answer(s, c, reach, err)
	})
	r.PUT("/printer/reach", func(c *gin.Context) {
		var reach sheet.PrinterReach
		if s.read(c, &reach) {
			s.done(c, s.App.KeepPrinterReach(c.Request.Context(), reach))
		}
	})
	s.inks(r)
	s.stocks(r)
	r.GET("/scraps", func(c *gin.Context) {
		scraps, err := s.App.Scraps(c.Request.Context())
		answer(s, c, scraps, err)
	})
	r.PUT("/scraps", s.keepScraps)
	r.GET("/photolooks", func(c *gin.Context) {
		looks, err := s.App.PhotoLooks(c.Request.Context())
		answer(s, c, looks, err)
	})
	r.PUT("/photolooks", func(c *gin.Context) {
		var l app.PhotoLook
		if s.read(c, &l) {
			s.done(c, s.App.KeepPhotoLook(c.Request.Context(), l))
		}
	})
	r.GET("/onhand", func(c *gin.Context) {
		onHand, err := s.App.OnHand(c.Request.Context())
		answer(s, c, onHand, err)
	})
	r.PUT("/stocks/:stock/onhand", s.keepOnHand)
	r.GET("/cards/:id/sheets", s.sheets)
	r.GET("/cards/:id/sheets.pdf", s.pdf)
	r.GET("/cards/:id/sheets.zip", s.all)
	for _, f := range format.All() {
		r.GET("/cards/:id/sheets/:n/lines"+f.Extensions[0], s.sheetFile(f))
	}
	r.GET("/cards/:id/sheets/:n/page.png", s.page)
	r.GET("/cards/:id/sheets/:n/page.jpg", s.page)
	r.POST("/cards/:id/sheets/closer", s.closer)
	r.POST("/cards/:id/prints", s.print)
	r.GET("/prints/:ref", s.printed)
	s.names(r)
	s.machine(r)
	r.GET("/jobs/:id", s.job)
	r.DELETE("/jobs/:id", s.stop)

	r.GET("/pictures", s.pictures)
	r.POST("/pictures", s.bringIn)
	r.GET("/pictures/:id/preview", s.preview)
	r.GET("/pictures/:id/facts", s.facts)
	r.POST("/pictures/:id/traces", s.trace)
	r.POST("/pictures/:id/edited", s.tryEdits)
	r.POST("/pictures/:id/right", s.right)
	r.POST("/pictures/:id/ways", s.way)
	r.DELETE("/pictures/:id", s.removePicture)

	r.POST("/fonts", s.bringInFont)
	r.GET("/fonts/:id/letters/:letter", func(c *gin.Context) {
		letter, _ := utf8.DecodeRuneInString(c.Param("letter"))
		forms, err := s.App.FormsOf(c.Request.Context(), c.Param("id"), letter)
		answer(s, c, forms, err)
	})
	r.DELETE("/fonts/:id", func(c *gin.Context) { s.done(c, s.App.RemoveFont(c.Request.Context(), c.Param("id"))) })

	r.GET("/supplies", s.supplies)
	r.GET("/supplies.zip", s.suppliesFile)
	r.POST("/supplies", s.bringSupplies)
	r.PUT("/supplies/:kind/:id", s.note)
	r.POST("/supplies/:kind/:id/uses", s.used)

	r.GET("/art", func(c *gin.Context) {
		all, err := s.App.AllArt(c.Request.Context())
		answer(s, c, all, err)
	})
	r.POST("/art", s.keepDrawing)
	r.DELETE("/art/:id", func(c *gin.Context) { s.done(c, s.App.RemoveArt(c.Request.Context(), c.Param("id"))) })
	r.GET("/art/:id/picture.png", func(c *gin.Context) {
		raw, err := s.App.ArtPicture(c.Request.Context(), c.Param("id"))
		s.picture(c, "image/png", raw, err, "max-age=3600") // art never changes
	})
	r.POST("/cards/:id/art", s.layArt)
	r.POST("/cards/:id/art/kept", s.keepArt)

	r.GET("/sketches", s.sketches)
	r.POST("/cards/:id/sketches", s.keepSketch)
	r.DELETE("/sketches/:id", s.removeSketch)
	r.POST("/sketches/:id/cards", s.startFromSketch)
	r.GET("/sketches/:id/front.png", s.sketchPicture)
}

// read decodes the body strictly into v; it has answered when it returns false.
func (s *server) read(c *gin.Context, v any) bool {
	dec := json.NewDecoder(http.MaxBytesReader(c.Writer, c.Request.Body, maxJSON))
	dec.DisallowUnknownFields()
	err := dec.Decode(v)
	if err == nil {
		if _, more := dec.Token(); !errors.Is(more, io.EOF) {
			err = errMoreThanOne
		}
	}
	var large *http.MaxBytesError
	if errors.As(err, &large) {
		problem(c, http.StatusRequestEntityTooLarge, "too-large", "This is more than can be changed at once.", "")
		return false
	}
	if err != nil {
		problem(c, http.StatusBadRequest, "malformed", malformed(err), "body")
		return false
	}
	return true
}

var errMoreThanOne = errors.New("something follows after the value")

// malformed says what is wrong with JSON, without the names that things have in here.
func malformed(err error) string {
	var syntax *json.SyntaxError
	var typed *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return fmt.Sprintf("The request is no JSON: it cannot be read at byte %d.", syntax.Offset)
	case errors.As(err, &typed) && typed.Field != "":
		return fmt.Sprintf("“%s” cannot be a %s.", typed.Field, typed.Value)
	case errors.As(err, &typed):
		return fmt.Sprintf("The request cannot be a %s.", typed.Value)
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return "The request ends before its JSON does."
	case errors.Is(err, errMoreThanOne):
		return "The request holds something after its JSON."
	}
	if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
		return fmt.Sprintf("The request has a part that is not known here, %s.", name)
	}
	return "The request is no JSON that can be read here."
}

// answer answers with v as JSON, or with the problem that the error is.
func answer[T any](s *server, c *gin.Context, v T, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, v)
}

// Catalogue is what there is to choose from.
type Catalogue struct {
	// Stocks are all, those that are not offered too; StocksAre names what is known of them.
	Stocks    []card.Stock     `json:"stocks"`
	StocksAre string           `json:"stocksAre"`
	Trades    []card.Trade     `json:"trades"`
	Envelopes []card.Trade     `json:"envelopes"`
	Foam      []float64        `json:"foam"`
	Papers    []pattern.Paper  `json:"papers"`
	Fonts     []lettering.Font `json:"fonts"`
	// FontFiles are the endings of files that fonts are read from.
	FontFiles []string `json:"fontFiles"`
	// Encodings are those that the letters of a list may be written in.
	Encodings []string `json:"encodings"`
	// EditsForAny are the parts of edits of a photo that others can have too.
	EditsForAny []string     `json:"editsForAny"`
	Sizes       []sheet.Size `json:"sizes"`
	// Edgings are the motifs, FirstDepth how deep they are laid first, mm.
	Edgings    []edging.Motif `json:"edgings"`
	FirstDepth float64        `json:"firstDepth"`
	Bases      []fold.Kind    `json:"bases"`
	Shapes     []shape.Ready  `json:"shapes"`
	// Setup is how sheets are laid where a card does not say.
	Setup card.SheetSetup `json:"setup"`
	// First is how new pieces are made, Mark what a registration mark looks like.
	First card.Firsts    `json:"first"`
	Mark  sheet.MarkForm `json:"mark"`
	// Checks are what cards are checked for.
	Checks []check.Check `json:"checks"`
	// Formats are those of drawings.
	Formats []format.Format `json:"formats"`
}

func (s *server) catalogue(c *gin.Context) {
	fonts, err := s.App.Fonts(c.Request.Context())
	if err == nil {
		_, err = s.App.Stocks(c.Request.Context())
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Catalogue{
		Stocks: card.AllStocks(), StocksAre: s.App.StocksAre(), Trades: card.Trades(), Envelopes: card.Envelopes(), Foam: card.Foam,
		Papers: pattern.All(), Fonts: fonts, FontFiles: lettering.Extensions(), Encodings: namelist.Encodings(), EditsForAny: card.EditsForAny(), Sizes: sheet.Sizes(), Edgings: edging.Known(), FirstDepth: card.FirstDepth, Bases: fold.Kinds(), Shapes: shape.All(),
		Setup: card.UsualSheets(), First: card.First(), Mark: sheet.Form(), Checks: check.All(), Formats: format.All(),
	})
}

func (s *server) font(c *gin.Context) {
	raw, err := s.App.FontFile(c.Request.Context(), strings.TrimSuffix(c.Param("file"), ".woff"))
	if err == nil && raw == nil {
		err = app.ErrNotFound
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Cache-Control", "max-age=86400")
	kind := "font/sfnt" // of those that were brought in
	if bytes.HasPrefix(raw, []byte("wOFF")) {
		kind = "font/woff"
	}
	c.Data(http.StatusOK, kind, raw)
}

func (s *server) bringInFont(c *gin.Context) {
	name, raw, ok := s.upload(c, "a TTF, OTF, TTC, WOFF or WOFF2 font")
	if !ok {
		return
	}
	faces, err := s.App.BringInFont(c.Request.Context(), name, raw)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, faces)
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

// WordsToSet is lettering that is to be set, with Text in place of what it says, if there is
// any.
type WordsToSet struct {
	Words card.Words `json:"words"`
	Text  *string    `json:"text,omitempty"`
}

// WordsAsSet is lettering as it would be, before it is changed in the card.
type WordsAsSet struct {
	scene.WordsSet
	Outline geom.Path    `json:"outline"`
	Parts   []scene.Part `json:"parts"`
	Rest    *geom.Path   `json:"rest,omitempty"` // beside parts
	// Carets are the places before each character and after the last one.
	Carets []lettering.Caret `json:"carets"`
}

func (s *server) setWords(c *gin.Context) {
	var to WordsToSet
	if !s.read(c, &to) {
		return
	}
	w := to.Words
	if to.Text != nil {
		w = w.WithText(*to.Text)
	}
	checked := w
	if strings.TrimSpace(w.Text) == "" {
		checked.Text, checked.Runs = "a", nil // what is being written may be empty for now
	}
	if err := checked.Check(); err != nil {
		s.fail(c, err)
		return
	}
	set, err := lettering.Set(w)
	if err != nil {
		s.fail(c, &card.Refusal{Field: "font", Why: err.Error()})
		return
	}
	parts := []scene.Part{}
	for _, p := range set.Parts {
		parts = append(parts, scene.Part{Colour: p.Colour, Path: p.Outline})
	}
	out := WordsAsSet{scene.WordsSet{Block: set.Block, Size: set.Size, Over: set.Over, Missing: set.Missing}, set.Outline, parts, nil, set.Carets}
	if len(parts) > 0 {
		out.Rest = &set.Rest
	}
	c.JSON(http.StatusOK, out)
}
