package doc

import (
	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// raw is a part of a document before it is read: fields as they were written.
type raw = map[string]jsontext.Value

// within changes the part, or each of the list of parts, that a field of o holds.
func within(o raw, field string, change func(raw) error) error {
	v := o[field]
	switch v.Kind() {
	case '{':
		var part raw
		if err := json.Unmarshal(v, &part); err != nil {
			return err
		}
		if err := change(part); err != nil {
			return err
		}
		return encodeInto(o, field, part)
	case '[':
		var list []jsontext.Value
		if err := json.Unmarshal(v, &list); err != nil {
			return err
		}
		for i := range list {
			holder := raw{"": list[i]}
			if list[i].Kind() == '{' {
				if err := within(holder, "", change); err != nil {
					return err
				}
			}
			list[i] = holder[""]
		}
		return encodeInto(o, field, list)
	}
	return nil
}

func encodeInto(o raw, field string, v any) error {
	b, err := Encode(v)
	o[field] = b
	return err
}

// upgrades[v] turns a document of version v into one of version v+1. Version 1 is the first.
var upgrades = map[int]func(raw) error{1: liftDocument}

// LiftField brings the value of one field of a part of a document (see package patch) from an older version to this one, in canonical key order.
func LiftField(version int, field string, v jsontext.Value) (jsontext.Value, error) {
	if version >= Version || len(v) == 0 {
		return v, nil
	}
	o := raw{field: v}
	var to any
	var err error
	switch {
	case field == "moves" && v.Kind() == '[':
		to, err = &[]*Move{}, within(o, field, liftMove)
	case (field == "transition" || field == "closing") && v.Kind() == '{':
		to, err = &Transition{}, within(o, field, liftTransition)
	default:
		return v, nil
	}
	if err != nil {
		return nil, err
	}
	if err := json.Unmarshal(o[field], to); err != nil {
		return nil, err
	}
	return Encode(to)
}

// In version 1 each effect had a field of its own for its parameters, and transitions had theirs beside their kind. Since version 2 they are
// params; a missing one of these is as the effect says, which may be another than it was.

func liftDocument(p raw) error {
	film := func(f raw) error {
		if err := within(f, "closing", liftTransition); err != nil {
			return err
		}
		return within(f, "scenes", func(s raw) error {
			if err := within(s, "transition", liftTransition); err != nil {
				return err
			}
			return within(s, "layers", liftLayer)
		})
	}
	if err := within(p, "film", film); err != nil {
		return err
	}
	if err := within(p, "insets", film); err != nil {
		return err
	}
	return within(p, "films", func(named raw) error { return within(named, "film", film) })
}

func liftLayer(l raw) error {
	if err := within(l, "moves", liftMove); err != nil {
		return err
	}
	return within(l, "children", liftLayer)
}

// before says what a parameter of version 1 was where it was missing, if that differs from what it is now.
var before = map[string]raw{
	"slide":  {"direction": jsontext.Value("0")},
	"scroll": {"direction": jsontext.Value("0")},
}

func liftMove(m raw) error {
	var effect string
	if m["effect"].Kind() == '"' {
		if err := json.Unmarshal(m["effect"], &effect); err != nil {
			return err
		}
	}
	params := raw{}
	for k, v := range before[effect] {
		params[k] = v
	}
	for _, of := range []string{"wipe", "slide", "spin", "rock", "scroll"} {
		if of == effect && m[of].Kind() == '{' {
			if err := json.Unmarshal(m[of], &params); err != nil {
				return err
			}
		}
		delete(m, of) // of another effect, it had no say
	}
	if len(params) == 0 {
		return nil
	}
	return encodeInto(m, "params", params)
}

func liftTransition(t raw) error {
	params := raw{}
	for _, of := range []string{"direction", "softness"} {
		if v, ok := t[of]; ok {
			params[of] = v
		}
		delete(t, of)
	}
	if len(params) == 0 {
		return nil
	}
	return encodeInto(t, "params", params)
}
