// Package svg reads drawings in SVG and makes groups of ordinary layers of them, and says what of each could not be kept. Nothing outside of a file is ever
// fetched, nothing in it is run.
package svg

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"regexp"
	"strings"

	"capstan/core/words"
)

// Limits of files that are read. What uses multiply counts where it is drawn.
const (
	MaxBytes    = 16 << 20
	maxElements = 50_000
	maxDeep     = 256
	maxDrawn    = 20_000 // things that a drawing is made of, uses with what they show
)

// node is an element, or text between elements, whose name then is empty.
type node struct {
	name     string
	at       map[string]string // attributes by their names without a prefix
	text     string
	parent   *node
	children []*node
	style    map[string]string // what style says of it by itself, see styled
	line     int
}

const (
	svgSpace   = "http://www.w3.org/2000/svg"
	xlinkSpace = "http://www.w3.org/1999/xlink"
	xmlSpace   = "http://www.w3.org/XML/1998/namespace"
)

// parsed reads the elements of a file. Those of other languages, and what could do something, are left out and told.
func parsed(r io.Reader, lost *losses) (*node, error) {
	names := &references{in: r}
	d := xml.NewDecoder(names)
	d.CharsetReader = func(label string, input io.Reader) (io.Reader, error) {
		switch strings.ToLower(label) {
		case "us-ascii", "ascii":
			return input, nil
		case "iso-8859-1", "latin1", "windows-1252":
			return &latin{in: input}, nil
		}
		return nil, errors.New("it is in " + label)
	}
	var root, at *node
	elements, deep, skip := 0, 0, 0
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			line, _ := d.InputPos()
			var f *words.Fault
			if errors.As(err, &f) {
				return nil, f
			}
			return nil, words.New("drawing.damaged", line, err)
		}
		switch t := token.(type) {
		case xml.Directive:
			d.Entity = entities(string(t))
			names.bounded = len(d.Entity) > 0
		case xml.StartElement:
			if deep++; deep > maxDeep {
				return nil, words.New("drawing.deep", maxDeep)
			}
			if elements++; elements > maxElements {
				return nil, words.New("drawing.many", maxElements)
			}
			if skip > 0 {
				skip++
				continue
			}
			if t.Name.Space != "" && t.Name.Space != svgSpace {
				skip = 1
				continue
			}
			switch t.Name.Local {
			case "script", "foreignObject", "animate", "animateTransform", "animateMotion", "set", "audio", "video", "iframe", "canvas":
				lost.add(notKept[t.Name.Local], at)
				skip = 1
				continue
			case "metadata":
				skip = 1
				continue
			}
			line, _ := d.InputPos()
			n := &node{name: t.Name.Local, at: map[string]string{}, parent: at, line: line}
			for _, a := range t.Attr {
				switch a.Name.Space {
				case "", xlinkSpace, xmlSpace:
				default:
					continue
				}
				if a.Name.Space == "" && strings.HasPrefix(a.Name.Local, "on") {
					lost.add("what it does when something happens to it", n)
					continue
				}
				if _, ok := n.at[a.Name.Local]; !ok || a.Name.Space == "" { // href before xlink:href
					n.at[a.Name.Local] = a.Value
				}
			}
			if at == nil {
				if root != nil || n.name != "svg" {
					return nil, words.New("drawing.none")
				}
				root = n
			} else {
				at.children = append(at.children, n)
			}
			at = n
		case xml.EndElement:
			deep--
			if skip > 0 {
				skip--
				continue
			}
			at = at.parent
		case xml.CharData:
			if skip == 0 && at != nil && (at.name == "text" || at.name == "tspan" || at.name == "style" || at.name == "title" || at.name == "a" || at.name == "textPath") {
				at.children = append(at.children, &node{text: string(t), parent: at})
			}
		}
	}
	if root == nil {
		return nil, words.New("drawing.none")
	}
	return root, nil
}

// Limits of the names that a file gives to texts of its own: drawing programs name spaces of names so. Each is far shorter than what would make a small file
// large, and none may name another.
const (
	mostEntities = 64
	mostEntity   = 100 // bytes
)

var entity = regexp.MustCompile(`<!ENTITY\s+([A-Za-z_][\w.-]*)\s+(?:"([^"&<%]*)"|'([^'&<%]*)')\s*>`)

// entities are the names that a document type gives to texts. What lies elsewhere is never fetched, and is not known.
func entities(directive string) map[string]string {
	names := map[string]string{}
	for _, m := range entity.FindAllStringSubmatch(directive, mostEntities) {
		if v := m[2] + m[3]; len(v) <= mostEntity {
			names[m[1]] = v
		}
	}
	return names
}

// references counts those to names in a file, which are as many as its signs for them at most: texts of their own could make it very long.
type references struct {
	in      io.Reader
	n       int
	bounded bool
}

func (r *references) Read(p []byte) (int, error) {
	n, err := r.in.Read(p)
	if r.n += bytes.Count(p[:n], []byte("&")); r.bounded && r.n > maxDrawn {
		return 0, words.New("drawing.many", maxDrawn)
	}
	return n, err
}

// notKept are elements that do something, in words.
var notKept = map[string]string{
	"script": "a script", "foreignObject": "a web page in it", "animate": "its own animation", "animateTransform": "its own animation", "animateMotion": "its own animation",
	"set": "its own animation", "audio": "sound", "video": "video", "iframe": "a web page in it", "canvas": "a web page in it",
}

// content is the text directly in an element.
func (n *node) content() string {
	var b strings.Builder
	for _, c := range n.children {
		if c.name == "" {
			b.WriteString(c.text)
		}
	}
	return b.String()
}

// walk calls each for an element and all in it.
func (n *node) walk(each func(n *node)) {
	each(n)
	for _, c := range n.children {
		if c.name != "" {
			c.walk(each)
		}
	}
}

// latin reads Latin-1 as UTF-8.
type latin struct {
	in   io.Reader
	rest []byte
}

func (l *latin) Read(p []byte) (int, error) {
	if len(l.rest) == 0 {
		raw := make([]byte, 1024)
		n, err := l.in.Read(raw)
		if n == 0 {
			return 0, err
		}
		for _, c := range raw[:n] {
			l.rest = append(l.rest, string(rune(c))...)
		}
	}
	n := copy(p, l.rest)
	l.rest = l.rest[n:]
	return n, nil
}

// Loss is something of a drawing that could not be kept, in words, how often, and where first.
type Loss struct {
	What  string `json:"what"`
	Where string `json:"where"` // the name of the thing, and its line
	Count int    `json:"count"`
}

// losses are told in the order in which they were met.
type losses struct {
	list []Loss
}

func (l *losses) add(what string, n *node) {
	for i := range l.list {
		if l.list[i].What == what {
			l.list[i].Count++
			return
		}
	}
	l.list = append(l.list, Loss{what, n.where(), 1})
}

// where is what an element is called for people.
func (n *node) where() string {
	if n == nil {
		return ""
	}
	s := n.name
	if id := n.at["id"]; id != "" {
		s = "“" + id + "”"
	}
	return s + ", line " + itoa(n.line)
}
