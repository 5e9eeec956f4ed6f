package server

import (
	"bytes"
	"io"
	"mime"
	"net/http"
	"strconv"
	"strings"
	"unicode"

	"github.com/gin-gonic/gin"

	"sectilis/app"
	"sectilis/core/document/card"
	"sectilis/core/format"
	"sectilis/core/production/sheet"
)

// options reads how sheets are laid: as the card says that the request is about, or as
// usual where it is about none. What the query names stands in place of that.
func (s *server) options(c *gin.Context) (sheet.Options, bool) {
	setup, err := card.UsualSheets(), error(nil)
	if id := c.Param("id"); id != "" {
		setup, err = s.App.SheetsOf(c.Request.Context(), id)
	}
	if err == nil {
		err = inQuery(c, &setup)
	}
	var opt sheet.Options
	if err == nil {
		opt, err = sheet.OptionsOf(setup)
	}
	if err != nil {
		s.fail(c, err)
	}
	return opt, err == nil
}

// outgoing is options for what leaves the program: while pieces have no room on any sheet,
// that is refused unless the query says without=1.
func (s *server) outgoing(c *gin.Context) (sheet.Options, bool) {
	opt, ok := s.options(c)
	if !ok || c.Query("without") == "1" {
		return opt, ok
	}
	if err := s.App.Whole(c.Request.Context(), c.Param("id"), opt); err != nil {
		s.fail(c, err)
		return opt, false
	}
	return opt, true
}

// inQuery reads what the query says of a setup, by the names that it has in JSON.
func inQuery(c *gin.Context, setup *card.SheetSetup) error {
	set := func(name string, v *string) {
		if text, ok := c.GetQuery(name); ok {
			*v = text
		}
	}
	set("size", &setup.Size)
	set("lie", (*string)(&setup.Lie))
	set("turning", (*string)(&setup.Turning))
	set("marks", (*string)(&setup.Marks))
	if text, ok := c.GetQuery("share"); ok {
		setup.Share = text == "1"
	}
	if text, ok := c.GetQuery("borderless"); ok {
		setup.Borderless = text == "1"
	}
	for name, v := range map[string]*float64{"margin": &setup.Margin, "between": &setup.Between} {
		if text, ok := c.GetQuery(name); ok {
			mm, err := strconv.ParseFloat(text, 64)
			if err != nil {
				return card.Refuse(name, "“%s” is no length in millimetres.", text)
			}
			*v = mm
		}
	}
	return nil
}

// measuredPage is what the rulers of a test page measure, mm.
type measuredPage struct {
	Across float64 `json:"across"`
	Down   float64 `json:"down"`
}

func (s *server) measured(c *gin.Context) {
	var m measuredPage
	opt, ok := s.options(c)
	if !ok || !s.read(c, &m) {
		return
	}
	if _, err := s.App.Measured(c.Request.Context(), opt.Size, m.Across, m.Down); err != nil {
		s.fail(c, err)
		return
	}
	s.trueSize(c)
}

func (s *server) trueSize(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		size, err := s.App.TrueSize(c.Request.Context(), opt.Size)
		answer(s, c, size, err)
	}
}

func (s *server) testPage(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		j, err := s.App.TestPage(c.Request.Context(), opt.Size, c.DefaultQuery("stock", "white-216"))
		s.accepted(c, j, err)
	}
}

func (s *server) keepScraps(c *gin.Context) {
	var scraps []sheet.Scrap
	if s.read(c, &scraps) {
		s.done(c, s.App.KeepScraps(c.Request.Context(), scraps))
	}
}

func (s *server) keepOnHand(c *gin.Context) {
	h := sheet.OnHand{}
	if s.read(c, &h) {
		h.Stock = c.Param("stock")
		s.done(c, s.App.KeepOnHand(c.Request.Context(), h))
	}
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

// closer starts the search for a closer layout.
func (s *server) closer(c *gin.Context) {
	if opt, ok := s.options(c); ok {
		job, err := s.App.LayCloser(c.Request.Context(), c.Param("id"), opt)
		if err != nil {
			s.fail(c, err)
			return
		}
		c.JSON(http.StatusAccepted, job)
	}
}

// file answers with what write writes, once all of it could be written. It is saved under
// the name of the card, followed by what it is.
func (s *server) file(c *gin.Context, kind, what string, write func(io.Writer) error) {
	var b bytes.Buffer
	if err := write(&b); err != nil {
		s.fail(c, err)
		return
	}
	title, err := s.App.Title(c.Request.Context(), c.Param("id"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": fileName(title, what)}))
	c.Data(http.StatusOK, kind, b.Bytes())
}

// maxTitle is how much of a card's name goes into the name of a file, in runes.
const maxTitle = 80

// fileName is a name for a file of a card, without what file systems do not take.
func fileName(title, what string) string {
	title = strings.Map(func(r rune) rune {
		switch {
		case strings.ContainsRune(`/\:*?"<>|`, r):
			return '-'
		case !unicode.IsPrint(r):
			return -1
		}
		return r
	}, title)
	if all := []rune(title); len(all) > maxTitle {
		title = string(all[:maxTitle])
	}
	title = strings.Trim(title, " .")
	if title == "" {
		return what
	}
	return title + ", " + what
}

func (s *server) number(c *gin.Context) int {
	n, err := strconv.Atoi(c.Param("n"))
	if err != nil {
		return -1 // there is no such sheet
	}
	return n
}

func (s *server) pdf(c *gin.Context) {
	if opt, ok := s.outgoing(c); ok {
		n, _ := strconv.Atoi(c.Query("sheet")) // none is all
		s.file(c, "application/pdf", "sheets.pdf", func(w io.Writer) error {
			return s.App.WritePDF(c.Request.Context(), w, c.Param("id"), opt, n, app.PDFAs{Lines: c.Query("lines") == "1", Spot: c.Query("spot") == "1"})
		})
	}
}

// all is every file of every sheet, in one.
func (s *server) all(c *gin.Context) {
	if opt, ok := s.outgoing(c); ok {
		s.file(c, "application/zip", "sheets.zip", func(w io.Writer) error {
			return s.App.WriteAll(c.Request.Context(), w, c.Param("id"), opt, unit(c))
		})
	}
}

// sheetFile is the lines of a sheet, or its run, in a format.
func (s *server) sheetFile(as format.Format) gin.HandlerFunc {
	return func(c *gin.Context) {
		if opt, ok := s.outgoing(c); ok {
			s.file(c, as.MIME, "sheet "+c.Param("n")+as.Extensions[0], func(w io.Writer) error {
				return s.App.WriteSheet(c.Request.Context(), w, c.Param("id"), opt, s.number(c), as)
			})
		}
	}
}

// page is a printed side of a sheet as a picture: page.png or page.jpg, with dpi, and
// side=back for the other one.
func (s *server) page(c *gin.Context) {
	opt, ok := s.outgoing(c)
	if !ok {
		return
	}
	as := app.PageAs{DPI: 300, Back: c.Query("side") == "back", JPEG: strings.HasSuffix(c.FullPath(), ".jpg")}
	if text := c.Query("dpi"); text != "" {
		dpi, err := strconv.ParseFloat(text, 64)
		if err != nil {
			s.fail(c, &card.Refusal{Field: "dpi", Why: "“" + text + "” is no number of pixels to the inch."})
			return
		}
		as.DPI = dpi
	}
	kind, name := "image/png", "sheet "+c.Param("n")+".png"
	if as.JPEG {
		kind, name = "image/jpeg", "sheet "+c.Param("n")+".jpg"
	}
	s.file(c, kind, name, func(w io.Writer) error {
		return s.App.WritePage(c.Request.Context(), w, c.Param("id"), opt, s.number(c), as)
	})
}

func (s *server) print(c *gin.Context) {
	if opt, ok := s.outgoing(c); ok {
		j, err := s.App.Print(c.Request.Context(), c.Param("id"), opt)
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
	raw, err := s.App.Printed(c.Request.Context(), c.Param("ref"), c.Query("small") == "1")
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
