// Package plain writes a value as a form and the numbers that fill it. The form is the value's JSON with 0 for every number, so that what is
// asked for again and again, such as what is shown while something is dragged, has the same form each time: it is read once, and from then on
// numbers alone cross, as plain memory. Tags are those of the JSON that documents are written by; fields a program does not know are left away.
package plain

import (
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// Writer writes values. The zero value is ready for use; it belongs to one goroutine, and what it returns is valid until it writes again.
type Writer struct {
	form    []byte
	numbers []float64
}

// Write returns the form of a value and its numbers, in the order in which the form has them.
func (w *Writer) Write(v any) (form []byte, numbers []float64, err error) {
	w.form, w.numbers = w.form[:0], w.numbers[:0]
	if v == nil {
		w.form = append(w.form, "null"...)
		return w.form, w.numbers, nil
	}
	r := reflect.ValueOf(v)
	err = of(r.Type())(w, r)
	return w.form, w.numbers, err
}

// way writes values of one type.
type way func(w *Writer, v reflect.Value) error

var ways sync.Map // of ways, by type

func of(t reflect.Type) way {
	if f, ok := ways.Load(t); ok {
		return f.(way)
	}
	f, _ := ways.LoadOrStore(t, made(t))
	return f.(way)
}

// within is the way of what lies in a type, found when it is first written: types may hold themselves.
func within(t reflect.Type) way {
	found := sync.OnceValue(func() way { return of(t) })
	return func(w *Writer, v reflect.Value) error { return found()(w, v) }
}

var (
	raw     = reflect.TypeFor[jsontext.Value]()
	byTypes = reflect.TypeFor[json.MarshalerTo]()
	floats  = reflect.TypeFor[[]float64]() // come by the thousand
)

func made(t reflect.Type) way {
	if t == raw {
		return func(w *Writer, v reflect.Value) error { return w.tokens(v.Bytes()) }
	}
	// Structs, such as the parts of a document, have a writer of their own only for the fields that a program does not know.
	if k := t.Kind(); (k == reflect.Map || k == reflect.Slice) && t.Implements(byTypes) {
		return func(w *Writer, v reflect.Value) error {
			text, err := json.Marshal(v.Interface(), json.Deterministic(true))
			if err != nil {
				return err
			}
			return w.tokens(text)
		}
	}
	switch t.Kind() {
	case reflect.Bool:
		return func(w *Writer, v reflect.Value) error { w.form = strconv.AppendBool(w.form, v.Bool()); return nil }
	case reflect.String:
		return func(w *Writer, v reflect.Value) error { w.text(v.String()); return nil }
	case reflect.Float64, reflect.Float32:
		return func(w *Writer, v reflect.Value) error { w.number(v.Float()); return nil }
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		return func(w *Writer, v reflect.Value) error { w.number(float64(v.Int())); return nil }
	case reflect.Uint, reflect.Uint8, reflect.Uint16, reflect.Uint32, reflect.Uint64:
		return func(w *Writer, v reflect.Value) error { w.number(float64(v.Uint())); return nil }
	case reflect.Pointer, reflect.Interface:
		return func(w *Writer, v reflect.Value) error {
			if v.IsNil() {
				w.form = append(w.form, "null"...)
				return nil
			}
			e := v.Elem()
			return of(e.Type())(w, e)
		}
	case reflect.Slice, reflect.Array:
		if t == floats {
			return func(w *Writer, v reflect.Value) error { w.list(v.Interface().([]float64)); return nil }
		}
		each := within(t.Elem())
		return func(w *Writer, v reflect.Value) error {
			w.form = append(w.form, '[')
			for i := range v.Len() {
				if i > 0 {
					w.form = append(w.form, ',')
				}
				if err := each(w, v.Index(i)); err != nil {
					return err
				}
			}
			w.form = append(w.form, ']')
			return nil
		}
	case reflect.Map:
		return mapWay(within(t.Elem()))
	case reflect.Struct:
		return structWay(t)
	}
	panic("plain: " + t.String() + " is not written")
}

func mapWay(each way) way {
	return func(w *Writer, v reflect.Value) error {
		keys := v.MapKeys()
		slices.SortFunc(keys, func(a, b reflect.Value) int { return byPage(a.String(), b.String()) })
		w.form = append(w.form, '{')
		for i, k := range keys {
			if i > 0 {
				w.form = append(w.form, ',')
			}
			w.text(k.String())
			w.form = append(w.form, ':')
			if err := each(w, v.MapIndex(k)); err != nil {
				return err
			}
		}
		w.form = append(w.form, '}')
		return nil
	}
}

// byPage orders keys as ECMAScript walks them (OrdinaryOwnPropertyKeys): indices by their number, then the others as they were put in.
func byPage(a, b string) int {
	x, xi := index(a)
	y, yi := index(b)
	switch {
	case xi && yi && x < y, xi && !yi:
		return -1
	case xi && yi && x > y, yi && !xi:
		return 1
	}
	return strings.Compare(a, b)
}

func index(key string) (uint64, bool) {
	n, err := strconv.ParseUint(key, 10, 32)
	return n, err == nil && n < 1<<32-1 && strconv.FormatUint(n, 10) == key
}

type field struct {
	name  string // as a key: ,"name":
	at    []int
	zero  bool // left away when it is zero
	empty bool // left away when nothing is in it
	way   way
}

func structWay(t reflect.Type) way {
	list := fields(t, nil)
	return func(w *Writer, v reflect.Value) error {
		w.form = append(w.form, '{')
		begin := len(w.form)
		for i := range list {
			f := &list[i]
			e := v.FieldByIndex(f.at)
			if f.zero && e.IsZero() {
				continue
			}
			before, n := len(w.form), len(w.numbers)
			w.form = append(w.form, f.name...)
			value := len(w.form)
			if err := f.way(w, e); err != nil {
				return err
			}
			if s := w.form[value:]; f.empty && (string(s) == "null" || string(s) == `""` || string(s) == "[]" || string(s) == "{}") {
				w.form, w.numbers = w.form[:before], w.numbers[:n]
			}
		}
		if len(w.form) > begin {
			w.form = append(w.form[:begin], w.form[begin+1:]...) // the comma before the first
		}
		w.form = append(w.form, '}')
		return nil
	}
}

func fields(t reflect.Type, at []int) (list []field) {
	for f := range t.Fields() {
		here := append(slices.Clip(at), f.Index...)
		name, options, _ := strings.Cut(f.Tag.Get("json"), ",")
		switch {
		case name == "-" || strings.Contains(options, "embed") || !f.IsExported() && !f.Anonymous:
			continue
		case f.Anonymous && name == "":
			inner := f.Type
			if inner.Kind() == reflect.Pointer {
				inner = inner.Elem()
			}
			list = append(list, fields(inner, here)...)
			continue
		case name == "":
			name = f.Name
		}
		list = append(list, field{`,"` + name + `":`, here, strings.Contains(options, "omitzero"), strings.Contains(options, "omitempty"), within(f.Type)})
	}
	return list
}

func (w *Writer) number(v float64) {
	w.form = append(w.form, '0')
	w.numbers = append(w.numbers, v)
}

func (w *Writer) list(numbers []float64) {
	w.form = append(w.form, '[')
	for i := range numbers {
		if i > 0 {
			w.form = append(w.form, ',')
		}
		w.form = append(w.form, '0')
	}
	w.form = append(w.form, ']')
	w.numbers = append(w.numbers, numbers...)
}

func (w *Writer) text(s string) {
	if !plainText(s) {
		w.form, _ = jsontext.AppendQuote(w.form, strings.ToValidUTF8(s, string(utf8.RuneError)))
		return
	}
	w.form = append(w.form, '"')
	w.form = append(w.form, s...)
	w.form = append(w.form, '"')
}

// plainText reports whether a text needs no escapes.
func plainText(s string) bool {
	for i := range len(s) {
		if c := s[i]; c < ' ' || c == '"' || c == '\\' || c >= utf8.RuneSelf {
			return false
		}
	}
	return true
}

// tokens writes a value that is JSON already, its members in the order they have.
func (w *Writer) tokens(text []byte) error {
	if len(text) == 0 {
		w.form = append(w.form, "null"...)
		return nil
	}
	form, numbers := len(w.form), len(w.numbers)
	for i := 0; i < len(text); {
		switch c := text[i]; {
		case c == '"':
			end := i + 1
			for end < len(text) && text[end] != '"' {
				if text[end] == '\\' {
					end++
				}
				end++
			}
			end = min(end+1, len(text))
			if _, yes := index(string(text[i+1 : end-1])); yes {
				w.form, w.numbers = w.form[:form], w.numbers[:numbers]
				return w.walked(text)
			}
			w.form = append(w.form, text[i:end]...)
			i = end
		case c == '-' || c >= '0' && c <= '9':
			end := i + 1
			for end < len(text) && strings.IndexByte("+-.eE0123456789", text[end]) >= 0 {
				end++
			}
			v, err := strconv.ParseFloat(string(text[i:end]), 64)
			if err != nil {
				return err
			}
			w.number(v)
			i = end
		case c == ' ' || c == '\n' || c == '\t' || c == '\r':
			i++
		default:
			w.form = append(w.form, c)
			i++
		}
	}
	return nil
}

// walked writes a value that is JSON already and may have members whose names are indices, which ECMAScript puts first.
func (w *Writer) walked(text []byte) error {
	var v any
	if err := json.Unmarshal(text, &v); err != nil {
		return err
	}
	r := reflect.ValueOf(v)
	return of(r.Type())(w, r)
}
