// Package dxf reads and writes drawings as DXF, the exchange format of
// technical drawing: ASCII files from R12 to 2018.
package dxf

import (
	"bufio"
	"bytes"
	"context"
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"

	"sectilis/core/document/exchange"
	"sectilis/core/ground/geom"
)

// Error is why a DXF is not read, in words for the person.
type Error struct{ Why string }

func (e *Error) Error() string { return e.Why }

func refuse(format string, args ...any) error { return &Error{fmt.Sprintf(format, args...)} }

// Bounds on what one file may unfold to.
const (
	maxPairs    = 4_000_000
	maxEntities = 200_000
	maxNesting  = 8
)

// pair is a group code with its value.
type pair struct {
	code  int
	value string
}

// entity is what stands between two groups with code 0.
type entity struct {
	kind  string
	pairs []pair
	kids  []entity // the vertices of a polyline
}

// file is a DXF taken apart.
type file struct {
	units    int
	hasUnits bool
	layers   map[string]layer
	blocks   map[string]block
	entities []entity
}

type layer struct {
	off    bool
	colour string
}

type block struct {
	base     geom.Point
	entities []entity
}

// perUnit is the length in mm of a unit by its number in $INSUNITS.
var perUnit = map[int]float64{1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: 25.4e-6, 9: .0254, 10: 914.4, 13: .001, 14: 100}

// Units are the names by which a person can say what a unit is.
var Units = map[string]float64{"mm": 1, "cm": 10, "m": 1000, "in": 25.4}

// Read reads a DXF. Where the file names no unit, unit says it ("mm", "cm",
// "m", "in"); empty takes millimetres and tells so in NoUnit. Lines and arcs
// that meet end to end are joined. What has no outline is noted. A file that would cost
// more than exchange.MaxWork to read is refused with an *Error; an error of ctx is passed on.
func Read(ctx context.Context, raw []byte, unit string) (exchange.Drawing, error) {
	var d exchange.Drawing
	if len(raw) > exchange.MaxBytes {
		return d, refuse("The DXF is larger than %d MB.", exchange.MaxBytes>>20)
	}
	if bytes.HasPrefix(raw, []byte("AutoCAD Binary DXF")) {
		return d, refuse("The DXF is a binary one. Save it as ASCII.")
	}
	pairs, err := scan(raw)
	if err != nil {
		return d, err
	}
	decode(pairs)
	f, err := parse(pairs)
	if err != nil {
		return d, err
	}
	scale, known := perUnit[f.units]
	if !f.hasUnits || !known {
		scale = 1
		if v, ok := Units[unit]; ok {
			scale = v
		} else {
			d.NoUnit = true
		}
	}
	r := reader{d: &d, f: f, loose: map[style][]geom.Path{}, budget: exchange.NewBudget(ctx)}
	if err := r.entities(f.entities, geom.Scale(scale, scale), "0", 0); err != nil {
		if errors.Is(err, exchange.ErrWork) {
			return d, refuse("The DXF cannot be read: %v.", err)
		}
		return d, err
	}
	r.join()
	if len(d.Shapes) == 0 {
		return d, refuse("There is no line in the DXF that can be taken.")
	}
	box := d.Bounds()
	if !(max(box.W, box.H) <= exchange.MaxPlace) {
		return d, refuse("The drawing would be larger than %d m.", exchange.MaxPlace/1000)
	}
	d.Upright()
	return d, nil
}

func scan(raw []byte) ([]pair, error) {
	in := bufio.NewScanner(bytes.NewReader(raw))
	in.Buffer(nil, 1<<20)
	var out []pair
	line := 0
	for in.Scan() {
		line++
		text := strings.TrimSpace(strings.TrimPrefix(in.Text(), "\ufeff"))
		code, err := strconv.Atoi(text)
		if err != nil || code < -5 || code > 1071 {
			return nil, refuse("The file is no DXF that can be read: line %d should be a group code.", line)
		}
		if !in.Scan() {
			return nil, refuse("The DXF ends in the middle, after line %d.", line)
		}
		line++
		if code == 999 {
			continue // a remark
		}
		if code == 0 && strings.TrimSpace(in.Text()) == "EOF" {
			return out, nil // whatever comes after is not of the drawing
		}
		if len(out) >= maxPairs {
			return nil, refuse("The DXF is too long to read.")
		}
		out = append(out, pair{code, strings.TrimSpace(in.Text())})
	}
	if in.Err() != nil {
		return nil, refuse("A line of the DXF is too long to read.")
	}
	return out, nil
}

// codePages are the encodings that files before 2007 name in their header.
var codePages = map[string]*charmap.Charmap{
	"ANSI_1250": charmap.Windows1250, "ANSI_1251": charmap.Windows1251, "ANSI_1252": charmap.Windows1252, "ANSI_1253": charmap.Windows1253,
	"ANSI_1254": charmap.Windows1254, "ANSI_1257": charmap.Windows1257, "DOS437": charmap.CodePage437, "DOS850": charmap.CodePage850, "DOS866": charmap.CodePage866,
}

// decode turns names that are not in UTF-8 into it, by the code page that the header names
// or else that of Western Europe.
func decode(pairs []pair) {
	page := charmap.Windows1252
	for i, p := range pairs[:max(len(pairs)-1, 0)] {
		if p.code == 9 && p.value == "$DWGCODEPAGE" {
			if named := codePages[strings.ToUpper(pairs[i+1].value)]; named != nil {
				page = named
			}
			break
		}
	}
	for i := range pairs {
		if !utf8.ValidString(pairs[i].value) {
			if text, err := page.NewDecoder().String(pairs[i].value); err == nil {
				pairs[i].value = text
			}
		}
	}
}

// split cuts pairs into entities, vertices put into their polyline.
func split(pairs []pair) []entity {
	var out []entity
	var poly *entity
	for _, p := range pairs {
		if p.code == 0 {
			e := entity{kind: strings.ToUpper(p.value)}
			switch {
			case e.kind == "SEQEND":
				poly = nil
			case e.kind == "VERTEX" && poly != nil:
				poly.kids = append(poly.kids, e)
				continue
			}
			out = append(out, e)
			if e.kind == "POLYLINE" {
				poly = &out[len(out)-1]
			} else if e.kind != "SEQEND" {
				poly = nil
			}
			continue
		}
		if poly != nil && len(poly.kids) > 0 {
			k := &poly.kids[len(poly.kids)-1]
			k.pairs = append(k.pairs, p)
		} else if len(out) > 0 {
			e := &out[len(out)-1]
			e.pairs = append(e.pairs, p)
		}
	}
	return out
}

func parse(pairs []pair) (*file, error) {
	f := &file{layers: map[string]layer{}, blocks: map[string]block{}}
	found := false
	for i := 0; i < len(pairs); i++ {
		if pairs[i].code != 0 || pairs[i].value != "SECTION" || i+1 >= len(pairs) || pairs[i+1].code != 2 {
			continue
		}
		end := i + 2
		for end < len(pairs) && !(pairs[end].code == 0 && pairs[end].value == "ENDSEC") {
			end++
		}
		body := pairs[i+2 : end]
		switch strings.ToUpper(pairs[i+1].value) {
		case "HEADER":
			f.header(body)
		case "TABLES":
			f.tables(split(body))
		case "BLOCKS":
			f.addBlocks(split(body))
		case "ENTITIES":
			found = true
			f.entities = append(f.entities, split(body)...)
		}
		i = end
	}
	if !found {
		return nil, refuse("The file is no DXF that can be read: it has no section of entities.")
	}
	return f, nil
}

// header takes the units of the drawing.
func (f *file) header(body []pair) {
	for j := 0; j+1 < len(body); j++ {
		if body[j].code == 9 && body[j].value == "$INSUNITS" {
			f.units, _ = strconv.Atoi(body[j+1].value)
			f.hasUnits = f.units != 0
		}
	}
}

// tables takes the layers.
func (f *file) tables(list []entity) {
	for _, e := range list {
		if e.kind == "LAYER" {
			colour := int(e.number(62, 7))
			f.layers[e.text(2)] = layer{colour < 0 || int(e.number(70, 0))&1 != 0, e.colour(colour)}
		}
	}
}

// addBlocks takes the blocks with what is in them.
func (f *file) addBlocks(list []entity) {
	var name string
	for _, e := range list {
		switch {
		case e.kind == "BLOCK":
			name = e.text(2)
			f.blocks[name] = block{base: e.point(10)}
		case e.kind == "ENDBLK":
			name = ""
		case name != "":
			b := f.blocks[name]
			b.entities = append(b.entities, e)
			f.blocks[name] = b
		}
	}
}

func (e entity) text(code int) string {
	for _, p := range e.pairs {
		if p.code == code {
			return p.value
		}
	}
	return ""
}

func parseNumber(text string, def float64) float64 {
	v, err := strconv.ParseFloat(text, 64)
	if err != nil || math.IsNaN(v) || math.Abs(v) > 1e12 {
		return def
	}
	return v
}

func (e entity) number(code int, def float64) float64 {
	if t := e.text(code); t != "" {
		return parseNumber(t, def)
	}
	return def
}

func (e entity) point(code int) geom.Point { return geom.Pt(e.number(code, 0), e.number(code+10, 0)) }

// pointOr is the point of a group code, or of another where it has none.
func (e entity) pointOr(code, other int) geom.Point {
	if e.text(code) == "" {
		return e.point(other)
	}
	return e.point(code)
}

// numbers are all values of a group code, in order.
func (e entity) numbers(code int) []float64 {
	var out []float64
	for _, p := range e.pairs {
		if p.code == code {
			out = append(out, parseNumber(p.value, 0))
		}
	}
	return out
}

// colour is the true colour of an entity or layer, else that of an index.
func (e entity) colour(index int) string {
	if t := e.text(420); t != "" {
		return fmt.Sprintf("#%06x", int(parseNumber(t, 0))&0xffffff)
	}
	return indexColour(index)
}

// indexColour is a colour of the format's numbered palette: the nine named
// ones, and hues of the rest by the rule that their numbers follow.
func indexColour(i int) string {
	named := []string{"", "#ff0000", "#ffff00", "#00ff00", "#00ffff", "#0000ff", "#ff00ff", "#000000", "#808080", "#c0c0c0"}
	i = max(i, -i)
	if i == 0 || i > 255 {
		return "#000000"
	}
	if i < len(named) {
		return named[i]
	}
	if i >= 250 {
		v := 51 + (i-250)*40
		return fmt.Sprintf("#%02x%02x%02x", v, v, v)
	}
	hue := float64(i/10-1) * 15
	value := []float64{1, 1, .65, .65, .5, .5, .3, .3, .15, .15}[i%10]
	saturation := 1.0
	if i%2 == 1 {
		saturation = .5
	}
	channel := func(shift float64) int {
		h := math.Mod(hue/60+shift, 6)
		return int(255 * value * (1 - saturation*max(0, min(h, 4-h, 1))))
	}
	return fmt.Sprintf("#%02x%02x%02x", channel(5), channel(3), channel(1))
}
