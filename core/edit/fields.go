package edit

import (
	"capstan/core/doc"
	"fmt"
	"maps"
	"math"
	"reflect"
	"strings"
	"sync"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/words"
)

// Fields says what becomes of fields of a part of the document, by their names there. A field is given
//   - a value of its type, which takes the place of what was there; any number is taken where it fits, any list for one of the same things;
//   - Fields, or a map, which change what is there field by field;
//   - nil, which takes it away.
//
// On the wire they are a JSON merge patch (RFC 7396). Numbers are rounded to 1e-4 when they are written, which is far below what can be seen
// or typed; what is not named stays to the last digit.
type Fields map[string]any

// Change changes fields of v, a pointer to a part of a document, which is the caller's own down to what the fields name. On an error, in words,
// it may have been changed in part.
func (f Fields) Change(v any) error {
	if err := change(reflect.ValueOf(v).Elem(), f); err != nil {
		return words.New("change.misfit", err)
	}
	return nil
}

// Get reads a field that is given a value into to, a pointer to a value of its type. It reports whether there is one that fits.
func (f Fields) Get(name string, to any) bool {
	v, ok := f[name]
	return ok && !absent(v) && put(reflect.ValueOf(to).Elem(), v) == nil
}

// FieldsOf returns what a field is given as Fields; none where it is no object.
func FieldsOf(v any) Fields {
	if f, ok := v.(Fields); ok {
		return f
	}
	out := Fields{}
	if from := reflect.ValueOf(v); from.Kind() == reflect.Map && from.Type().Key().Kind() == reflect.String {
		for k, item := range from.Seq2() {
			out[k.String()] = item.Interface()
		}
	}
	return out
}

// Has reports whether a field is named, be it to be taken away.
func (f Fields) Has(name string) bool {
	_, ok := f[name]
	return ok
}

// merged returns a copy of v with fields changed. Those named in fixed may not be.
func merged[T any](v *T, f Fields, fixed ...string) (*T, error) {
	for _, name := range fixed {
		if f.Has(name) {
			return nil, words.New("change.fixed", name)
		}
	}
	out := *v
	return &out, f.Change(&out)
}

// change changes fields of to, which is copied where the fields reach into it.
func change(to reflect.Value, f Fields) error {
	switch to.Kind() {
	case reflect.Pointer:
		own := reflect.New(to.Type().Elem())
		if !to.IsNil() {
			own.Elem().Set(to.Elem())
		}
		to.Set(own)
		return change(own.Elem(), f)
	case reflect.Map:
		own := reflect.MakeMap(to.Type())
		for k, v := range to.Seq2() {
			own.SetMapIndex(k, v)
		}
		for name, v := range f {
			key := reflect.ValueOf(name)
			if absent(v) {
				own.SetMapIndex(key, reflect.Value{})
				continue
			}
			item := reflect.New(to.Type().Elem()).Elem()
			if was := own.MapIndex(key); was.IsValid() {
				item.Set(was)
			}
			if err := put(item, v); err != nil {
				return fmt.Errorf("%s: %w", name, err)
			}
			own.SetMapIndex(key, item)
		}
		to.Set(own)
		return nil
	case reflect.Struct:
		known := fieldsOf(to.Type())
		for name, v := range f {
			i, ok := known[name]
			if !ok {
				return fmt.Errorf("there is no field %q", name)
			}
			if err := put(to.Field(i), v); err != nil {
				return fmt.Errorf("%s: %w", name, err)
			}
		}
		return nil
	}
	return fmt.Errorf("it has no fields")
}

// absent reports whether a field is taken away.
func absent(v any) bool {
	if v == nil {
		return true
	}
	p := reflect.ValueOf(v)
	return p.Kind() == reflect.Pointer && p.IsNil()
}

// put gives a field what Fields say of it.
func put(to reflect.Value, v any) error {
	switch v := v.(type) {
	case nil:
		to.SetZero()
		return nil
	case Fields:
		return change(to, v)
	case jsontext.Value:
		return decode(to, v)
	}
	from := reflect.ValueOf(v)
	if from.Kind() == reflect.Map {
		f := Fields{}
		for k, item := range from.Seq2() {
			f[k.String()] = item.Interface()
		}
		return change(to, f)
	}
	return assign(to, from)
}

// decode reads what stands on the wire for one field, which is no object.
func decode(to reflect.Value, raw jsontext.Value) error {
	if raw.Kind() == '0' {
		var n float64
		if json.Unmarshal(raw, &n) != nil {
			return fmt.Errorf("%.20s is beyond all measure", raw)
		}
		return assign(to, reflect.ValueOf(n))
	}
	v := reflect.New(to.Type())
	if json.Unmarshal(raw, v.Interface()) != nil {
		return fmt.Errorf("%.40s is no %s", raw, kindOf(to))
	}
	return assign(to, v.Elem())
}

// kindOf says in words what a field holds.
func kindOf(v reflect.Value) string {
	switch v.Kind() {
	case reflect.Pointer:
		return kindOf(reflect.Zero(v.Type().Elem()))
	case reflect.String:
		return "text"
	case reflect.Bool:
		return "yes or no"
	case reflect.Float64, reflect.Int, reflect.Int64:
		return "number"
	case reflect.Slice, reflect.Array:
		return "list of this kind"
	}
	return "object"
}

// round cuts a number to what is written of it.
func round(v float64) float64 { return math.Round(v*1e4)/1e4 + 0 }

// crops are kept finer: a ten-thousandth of a picture may be pixels of the page.
var crops = reflect.TypeFor[doc.Crop]()

// assign gives to a copy of from, numbers rounded, which shares nothing with it.
func assign(to, from reflect.Value) error {
	misfit := func() error { return fmt.Errorf("a %s is no %s", kindOf(from), kindOf(to)) }
	switch {
	case !from.IsValid():
		return fmt.Errorf("nothing is no %s", kindOf(to))
	case from.Kind() == reflect.Pointer && from.IsNil():
		to.SetZero()
		return nil
	case from.Kind() == reflect.Pointer || from.Kind() == reflect.Interface:
		return assign(to, from.Elem())
	case to.Kind() == reflect.Pointer:
		own := reflect.New(to.Type().Elem())
		if err := assign(own.Elem(), from); err != nil {
			return err
		}
		to.Set(own)
		return nil
	}
	switch to.Kind() {
	case reflect.Interface:
		return assignAny(to, from)
	case reflect.Float64:
		switch {
		case from.CanFloat():
			to.SetFloat(round(from.Float()))
		case from.CanInt():
			to.SetFloat(float64(from.Int()))
		default:
			return misfit()
		}
	case reflect.Int, reflect.Int64:
		switch {
		case from.CanInt():
			to.SetInt(from.Int())
		case from.CanFloat():
			n := round(from.Float())
			if n != math.Trunc(n) || math.Abs(n) > 1<<53 {
				return fmt.Errorf("%v is no whole number", from.Float())
			}
			to.SetInt(int64(n))
		default:
			return misfit()
		}
	case reflect.Slice, reflect.Array:
		if from.Kind() != reflect.Slice && from.Kind() != reflect.Array {
			return misfit()
		}
		if to.Kind() == reflect.Slice {
			if from.Kind() == reflect.Slice && from.IsNil() {
				to.SetZero()
				return nil
			}
			to.Set(reflect.MakeSlice(to.Type(), from.Len(), from.Len()))
		} else if from.Len() != to.Len() {
			return fmt.Errorf("these are %d, not %d", from.Len(), to.Len())
		}
		for i := range to.Len() {
			if err := assign(to.Index(i), from.Index(i)); err != nil {
				return err
			}
			if v := from.Index(i); to.Type() == crops && v.CanFloat() {
				to.Index(i).SetFloat(math.Round(v.Float()*1e8)/1e8 + 0)
			}
		}
	case reflect.Struct:
		if from.Type() != to.Type() {
			return misfit()
		}
		for i := range to.NumField() {
			if err := assign(to.Field(i), from.Field(i)); err != nil {
				return err
			}
		}
	case reflect.Map:
		if from.Type() != to.Type() {
			return misfit()
		}
		own := reflect.MakeMapWithSize(to.Type(), from.Len())
		for k, v := range from.Seq2() {
			item := reflect.New(to.Type().Elem()).Elem()
			if err := assign(item, v); err != nil {
				return err
			}
			own.SetMapIndex(k, item)
		}
		to.Set(own)
	default:
		if from.Kind() != to.Kind() {
			return misfit()
		}
		to.Set(from.Convert(to.Type()))
	}
	return nil
}

// assignAny gives a field that may hold any value a number, text, yes or no, or a list of these.
func assignAny(to, from reflect.Value) error {
	switch {
	case from.CanFloat():
		to.Set(reflect.ValueOf(round(from.Float())))
	case from.CanInt():
		to.Set(reflect.ValueOf(float64(from.Int())))
	case from.Kind() == reflect.String:
		to.Set(reflect.ValueOf(from.String()))
	case from.Kind() == reflect.Bool:
		to.Set(reflect.ValueOf(from.Bool()))
	case from.Kind() == reflect.Slice || from.Kind() == reflect.Array:
		list := make([]any, from.Len())
		for i := range list {
			if err := assign(reflect.ValueOf(&list[i]).Elem(), from.Index(i)); err != nil {
				return err
			}
		}
		to.Set(reflect.ValueOf(list))
	default:
		return fmt.Errorf("a %s is no number, text or list", kindOf(from))
	}
	return nil
}

var fieldIndex sync.Map // of the place of fields in a struct by their names in the document, by reflect.Type

func fieldsOf(t reflect.Type) map[string]int {
	if known, ok := fieldIndex.Load(t); ok {
		return known.(map[string]int)
	}
	known := map[string]int{}
	for i := range t.NumField() {
		if name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ","); name != "" {
			known[name] = i
		}
	}
	fieldIndex.Store(t, known)
	return known
}

// UnmarshalJSONFrom reads a merge patch: objects are Fields, all else is read when it is known what it is for.
func (f *Fields) UnmarshalJSONFrom(d *jsontext.Decoder) error {
	var all map[string]jsontext.Value
	if err := json.UnmarshalDecode(d, &all); err != nil {
		return err
	}
	if all == nil {
		*f = nil
		return nil
	}
	*f = make(Fields, len(all))
	for name, raw := range all {
		switch raw.Kind() {
		case 'n':
			(*f)[name] = nil
		case '{':
			var in Fields
			if err := json.Unmarshal(raw, &in); err != nil {
				return err
			}
			(*f)[name] = in
		default:
			(*f)[name] = raw
		}
	}
	return nil
}

// MarshalJSONTo writes a merge patch. A value that takes the place of another names all that it has not.
func (f Fields) MarshalJSONTo(e *jsontext.Encoder) error {
	plain := make(map[string]any, len(f))
	for name, v := range f {
		plain[name] = spelt(reflect.ValueOf(v))
	}
	return json.MarshalEncode(e, plain, json.Deterministic(true))
}

// spelt is a value with every field of it named, those that it has not as nil.
func spelt(v reflect.Value) any {
	for v.Kind() == reflect.Pointer {
		if v.IsNil() {
			return nil
		}
		v = v.Elem()
	}
	if v.Kind() != reflect.Struct {
		if !v.IsValid() {
			return nil
		}
		return v.Interface()
	}
	out := map[string]any{}
	for name, i := range fieldsOf(v.Type()) {
		if w := v.Field(i); w.IsZero() && strings.Contains(v.Type().Field(i).Tag.Get("json"), ",omit") {
			out[name] = nil
		} else {
			out[name] = spelt(w)
		}
	}
	return out
}

// Differing are the fields that make a what b is: of values of one type, what differs alone, and of what lies in them likewise.
func Differing[T any](a, b *T) Fields {
	return differing(reflect.ValueOf(a).Elem(), reflect.ValueOf(b).Elem())
}

func differing(a, b reflect.Value) Fields {
	out := Fields{}
	for name, i := range fieldsOf(a.Type()) {
		v, w := a.Field(i), b.Field(i)
		if reflect.DeepEqual(v.Interface(), w.Interface()) {
			continue
		}
		for v.Kind() == reflect.Pointer && !v.IsNil() && !w.IsNil() {
			v, w = v.Elem(), w.Elem()
		}
		switch {
		case w.Kind() == reflect.Pointer && w.IsNil() || w.IsZero():
			out[name] = nil
		case v.Kind() == reflect.Struct:
			out[name] = differing(v, w)
		default:
			out[name] = w.Interface()
		}
	}
	return out
}

// Clone returns f with fields of its own: they can be added and taken out. What they are given is shared.
func (f Fields) Clone() Fields { return maps.Clone(f) }
