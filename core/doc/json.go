package doc

import (
	"bytes"
	"encoding/json"
	"fmt"
	"reflect"
	"sort"
	"strings"
	"sync"
)

// keepUnknown decodes data into the struct v points to and returns the fields v has no place for.
func keepUnknown(data []byte, v any) (Extra, error) {
	if err := json.Unmarshal(data, v); err != nil {
		return nil, err
	}
	var all map[string]json.RawMessage
	if err := json.Unmarshal(data, &all); err != nil {
		return nil, err
	}
	for name := range knownFields(reflect.TypeOf(v).Elem()) {
		delete(all, name)
	}
	if len(all) == 0 {
		return nil, nil
	}
	return all, nil
}

// withUnknown encodes v and puts the unknown fields behind the known ones, sorted by name.
func withUnknown(v any, extra Extra) ([]byte, error) {
	out, err := json.Marshal(v)
	if err != nil || len(extra) == 0 {
		return out, err
	}
	names := make([]string, 0, len(extra))
	for name := range extra {
		names = append(names, name)
	}
	sort.Strings(names)
	b := bytes.NewBuffer(bytes.TrimSuffix(out, []byte("}")))
	for _, name := range names {
		if b.Len() > 1 {
			b.WriteByte(',')
		}
		key, _ := json.Marshal(name)
		b.Write(key)
		b.WriteByte(':')
		if err := json.Compact(b, extra[name]); err != nil {
			return nil, err
		}
	}
	b.WriteByte('}')
	return b.Bytes(), nil
}

var fieldCache sync.Map

func knownFields(t reflect.Type) map[string]bool {
	if m, ok := fieldCache.Load(t); ok {
		return m.(map[string]bool)
	}
	m := map[string]bool{}
	for i := 0; i < t.NumField(); i++ {
		name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
		if name != "" && name != "-" {
			m[name] = true
		}
	}
	fieldCache.Store(t, m)
	return m
}

type plainProject Project
type plainScene Scene
type plainLayer Layer
type plainMove Move

// UnmarshalJSON keeps unknown fields in Extra.
func (p *Project) UnmarshalJSON(b []byte) (err error) {
	p.Extra, err = keepUnknown(b, (*plainProject)(p))
	return
}

// MarshalJSON writes known fields in the order of the struct, then the unknown ones by name.
func (p *Project) MarshalJSON() ([]byte, error) { return withUnknown((*plainProject)(p), p.Extra) }

// UnmarshalJSON keeps unknown fields in Extra.
func (s *Scene) UnmarshalJSON(b []byte) (err error) {
	s.Extra, err = keepUnknown(b, (*plainScene)(s))
	return
}

// MarshalJSON writes known fields in the order of the struct, then the unknown ones by name.
func (s *Scene) MarshalJSON() ([]byte, error) { return withUnknown((*plainScene)(s), s.Extra) }

// UnmarshalJSON keeps unknown fields in Extra.
func (l *Layer) UnmarshalJSON(b []byte) (err error) {
	l.Extra, err = keepUnknown(b, (*plainLayer)(l))
	return
}

// MarshalJSON writes known fields in the order of the struct, then the unknown ones by name.
func (l *Layer) MarshalJSON() ([]byte, error) { return withUnknown((*plainLayer)(l), l.Extra) }

// UnmarshalJSON keeps unknown fields in Extra.
func (m *Move) UnmarshalJSON(b []byte) (err error) {
	m.Extra, err = keepUnknown(b, (*plainMove)(m))
	return
}

// MarshalJSON writes known fields in the order of the struct, then the unknown ones by name.
func (m *Move) MarshalJSON() ([]byte, error) { return withUnknown((*plainMove)(m), m.Extra) }

// upgrades[v] turns a document of version v into one of version v+1. Version 1 is the first.
var upgrades = map[int]func(map[string]json.RawMessage) error{}

// Read decodes a document of this or an older version and validates it. A newer version, a missing
// one and any bad field are refused with an error in words; nothing is repaired silently.
func Read(data []byte) (*Project, error) {
	var head struct {
		Version *int `json:"version"`
	}
	if err := json.Unmarshal(data, &head); err != nil {
		return nil, fmt.Errorf("this is no Capstan document: %w", err)
	}
	if head.Version == nil || *head.Version < 1 {
		return nil, &Invalid{"version", "is missing; a Capstan document says its format version"}
	}
	if *head.Version > Version {
		return nil, &Invalid{"version", fmt.Sprintf(
			"is %d; this Capstan reads up to %d. Open the document with a newer Capstan", *head.Version, Version)}
	}
	if *head.Version < Version {
		var all map[string]json.RawMessage
		if err := json.Unmarshal(data, &all); err != nil {
			return nil, err
		}
		for v := *head.Version; v < Version; v++ {
			if err := upgrades[v](all); err != nil {
				return nil, fmt.Errorf("upgrading from version %d: %w", v, err)
			}
		}
		all["version"] = json.RawMessage(fmt.Sprint(Version))
		data, _ = json.Marshal(all)
	}
	p := &Project{}
	if err := json.Unmarshal(data, p); err != nil {
		return nil, fmt.Errorf("this document cannot be read: %w", err)
	}
	if err := p.Validate(); err != nil {
		return nil, err
	}
	return p, nil
}

// Write encodes the document in canonical key order.
func (p *Project) Write() ([]byte, error) { return json.Marshal(p) }
