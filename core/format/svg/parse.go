package svg

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strings"

	"sectilis/core/document/exchange"
)

// node is an element.
type node struct {
	name string
	attr map[string]string
	kids []*node
	text string
	// label is what another program calls it, of a layer for example.
	label string
}

// elements reads the elements, and the text of all style elements.
func elements(raw []byte, d *exchange.Drawing) (*node, string, error) {
	dec := xml.NewDecoder(bytes.NewReader(raw))
	dec.CharsetReader = charset
	t := tree{d: d}
	for {
		tok, err := dec.Token()
		if err == io.EOF {
			break
		}
		var own *Error
		if errors.As(err, &own) {
			return nil, "", own
		}
		if err != nil {
			line, _ := dec.InputPos()
			return nil, "", refuse("The file is no SVG that can be read: line %d is not well formed.", line)
		}
		if err := t.read(tok); err != nil {
			return nil, "", err
		}
	}
	if t.root == nil || t.root.name != "svg" {
		return nil, "", refuse("The file is no SVG.")
	}
	return t.root, t.css.String(), nil
}

// charset reads the encodings that SVG files are met in.
func charset(name string, in io.Reader) (io.Reader, error) {
	switch strings.ToLower(name) {
	case "utf-8", "us-ascii", "ascii":
		return in, nil
	case "iso-8859-1", "latin1", "windows-1252":
		rest, err := io.ReadAll(in)
		if err != nil {
			return nil, err
		}
		out := make([]rune, len(rest))
		for i, c := range rest {
			out[i] = rune(c)
		}
		return strings.NewReader(string(out)), nil
	}
	return nil, refuse("The SVG is written in “%s”; save it as UTF-8.", name)
}

// tree is the elements as far as they are read.
type tree struct {
	d    *exchange.Drawing
	root *node
	open []*node // from the root to the one that is read
	css  strings.Builder
	n    int // elements so far
}

// read takes the next token.
func (t *tree) read(tok xml.Token) error {
	switch k := tok.(type) {
	case xml.Directive:
		if bytes.Contains(bytes.ToUpper(k), []byte("ENTITY")) || bytes.ContainsAny(k, "[") {
			return refuse("The SVG declares entities, which are not read. Save it as plain SVG.")
		}
	case xml.ProcInst:
		if k.Target == "xml-stylesheet" {
			t.d.Note("Styles from another file were left out: nothing outside of the SVG is read.")
		}
	case xml.StartElement:
		return t.begin(k)
	case xml.EndElement:
		t.open = t.open[:len(t.open)-1]
	case xml.CharData:
		t.words(string(k))
	}
	return nil
}

// begin opens an element.
func (t *tree) begin(k xml.StartElement) error {
	if t.n++; t.n > maxElements {
		return refuse("The SVG has more than %d elements.", maxElements)
	}
	if len(t.open) > maxDepth {
		return refuse("The SVG is nested more than %d deep.", maxDepth)
	}
	el := &node{name: k.Name.Local, attr: make(map[string]string, len(k.Attr))}
	for _, a := range k.Attr {
		el.take(a, t.d)
	}
	if k.Name.Local == "script" {
		t.d.Note("A script was left out.")
	}
	el.checkReference(t.d)
	if len(t.open) > 0 {
		up := t.open[len(t.open)-1]
		up.kids = append(up.kids, el)
	} else if t.root == nil {
		t.root = el
	}
	t.open = append(t.open, el)
	return nil
}

// words keeps text where it means something.
func (t *tree) words(text string) {
	if len(t.open) == 0 {
		return
	}
	el := t.open[len(t.open)-1]
	switch el.name {
	case "style":
		t.css.WriteString(text)
		return
	case "text", "tspan":
		el.kids = append(el.kids, &node{name: wordsNode, text: text})
	case "title", "textPath":
	default:
		return
	}
	if len(el.text) < maxText {
		el.text += text
	}
}

// wordsNode is what a stretch of words in a text element is called, in its place among the
// elements.
const wordsNode = "#words"

// maxText bounds what is kept of an element's text: a title, or the words of a note.
const maxText = 400

// linkSpace is the namespace that href had before it had none.
const linkSpace = "http://www.w3.org/1999/xlink"

// take keeps an attribute. Those of other namespaces are other programs' own, but for the
// label of a layer, in whichever namespace it stands.
func (n *node) take(a xml.Attr, d *exchange.Drawing) {
	name, plain := a.Name.Local, a.Name.Space == ""
	switch {
	case name == "label" && !plain:
		n.label = strings.TrimSpace(a.Value)
	case name == "href" && (a.Name.Space == linkSpace || a.Name.Space == "xlink"):
		if n.attr["href"] == "" { // the plain href comes before the old one
			n.attr["href"] = a.Value
		}
	case !plain:
	case isEvent(name):
		d.Note("A script was left out.")
	default:
		n.attr[name] = a.Value
	}
}

// isEvent reports whether an attribute is a script to be run at an event: "on" and the
// event's name in small letters.
func isEvent(name string) bool {
	rest, ok := strings.CutPrefix(strings.ToLower(name), "on")
	return ok && rest != "" && !strings.ContainsFunc(rest, func(c rune) bool { return c < 'a' || c > 'z' })
}

// checkReference drops whatever would be fetched from outside the file.
func (n *node) checkReference(d *exchange.Drawing) {
	href := strings.TrimSpace(n.attr["href"])
	n.attr["href"] = href
	if href == "" || strings.HasPrefix(href, "#") || n.name == "image" && strings.HasPrefix(href, "data:") {
		return
	}
	delete(n.attr, "href")
	if n.name == "a" {
		return // what it leads to is not drawn
	}
	if r := []rune(href); len(r) > 60 {
		href = string(r[:60]) + "…"
	}
	d.Note("Something outside of the SVG was left out (“%s”): nothing is fetched. Embed it to bring it in.", href)
}
