package svg

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strings"
)

// node is an element.
type node struct {
	name string
	attr map[string]string
	kids []*node
	text string
}

// parse reads the elements, and the text of all style elements.
func parse(raw []byte) (*node, string, error) {
	dec := xml.NewDecoder(bytes.NewReader(raw))
	dec.CharsetReader = func(name string, in io.Reader) (io.Reader, error) {
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
	var root *node
	var open []*node
	var css strings.Builder
	n := 0
	for {
		tok, err := dec.Token()
		if err == io.EOF {
			break
		}
		if err != nil {
			var own *Error
			if errors.As(err, &own) {
				return nil, "", own
			}
			line, _ := dec.InputPos()
			return nil, "", refuse("The file is no SVG that can be read: line %d is not well formed.", line)
		}
		switch t := tok.(type) {
		case xml.Directive:
			if bytes.Contains(bytes.ToUpper(t), []byte("ENTITY")) || bytes.ContainsAny(t, "[") {
				return nil, "", refuse("The SVG declares entities, which are not read. Save it as plain SVG.")
			}
		case xml.ProcInst:
			if t.Target == "xml-stylesheet" {
				return nil, "", refuse("The SVG takes its styles from another file, which is not read. Save it with its styles inside.")
			}
		case xml.StartElement:
			if n++; n > maxElements {
				return nil, "", refuse("The SVG has more than %d elements.", maxElements)
			}
			if len(open) > maxDepth {
				return nil, "", refuse("The SVG is nested more than %d deep.", maxDepth)
			}
			el := &node{name: t.Name.Local, attr: make(map[string]string, len(t.Attr))}
			for _, a := range t.Attr {
				name := strings.ToLower(a.Name.Local)
				if strings.HasPrefix(name, "on") {
					return nil, "", refuse("The SVG holds a script, which is not read. Save it without scripts.")
				}
				if a.Name.Local == "href" && a.Name.Space != "" && el.attr["href"] != "" {
					continue // the plain href comes before the old one
				}
				el.attr[a.Name.Local] = a.Value
			}
			if t.Name.Local == "script" {
				return nil, "", refuse("The SVG holds a script, which is not read. Save it without scripts.")
			}
			if err := el.checkReference(); err != nil {
				return nil, "", err
			}
			if len(open) > 0 {
				up := open[len(open)-1]
				up.kids = append(up.kids, el)
			} else if root == nil {
				root = el
			}
			open = append(open, el)
		case xml.EndElement:
			open = open[:len(open)-1]
		case xml.CharData:
			if len(open) > 0 {
				if el := open[len(open)-1]; el.name == "style" {
					css.Write(t)
				} else if el.name == "text" || el.name == "tspan" || el.name == "title" || el.name == "textPath" {
					el.text += string(t)
				}
			}
		}
	}
	if root == nil || root.name != "svg" {
		return nil, "", refuse("The file is no SVG.")
	}
	return root, css.String(), nil
}

// checkReference refuses whatever would be fetched from outside the file.
func (n *node) checkReference() error {
	href := strings.TrimSpace(n.attr["href"])
	if href == "" || n.name == "a" && !strings.HasPrefix(strings.ToLower(href), "javascript:") {
		return nil
	}
	if strings.HasPrefix(href, "#") || strings.HasPrefix(href, "data:image/") {
		return nil
	}
	if len(href) > 60 {
		href = href[:60] + "…"
	}
	return refuse("The SVG refers to something outside of it (“%s”), which is not fetched. Embed it, then bring it in again.", href)
}
