package doc

import (
	"errors"
	"fmt"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// Documents are coded by JSON v2, which keeps unknown fields in one pass: the standard library's decoder has to read each
// level of the tree several times for that (measured: 8 times slower). The methods below are for both: streams within a document,
// and encoding/json around one.

// The same types without methods.
type (
	projectFields Project
	sceneFields   Scene
	layerFields   Layer
	moveFields    Move
)

// Encode codes a value as documents are coded: the same bytes for the same value.
func Encode(v any) ([]byte, error) { return json.Marshal(v, json.Deterministic(true)) }

// Strict decodes JSON into v and refuses fields that v does not have: what is misspelt must not do half of what was meant.
func Strict(data []byte, v any) error {
	err := json.Unmarshal(data, v, json.RejectUnknownMembers(true))
	var e *json.SemanticError
	if errors.Is(err, json.ErrUnknownName) && errors.As(err, &e) {
		return fmt.Errorf("unknown field %q", e.JSONPointer.LastToken())
	}
	return err
}

// MarshalJSONTo writes known fields in the order of the struct, then the unknown ones by name.
func (p *Project) MarshalJSONTo(e *jsontext.Encoder) error {
	return json.MarshalEncode(e, (*projectFields)(p))
}

// UnmarshalJSONFrom keeps unknown fields in Extra.
func (p *Project) UnmarshalJSONFrom(d *jsontext.Decoder) error {
	return json.UnmarshalDecode(d, (*projectFields)(p))
}

// MarshalJSON is MarshalJSONTo for encoding/json.
func (p *Project) MarshalJSON() ([]byte, error) { return Encode(p) }

// UnmarshalJSON is UnmarshalJSONFrom for encoding/json.
func (p *Project) UnmarshalJSON(b []byte) error { return json.Unmarshal(b, (*projectFields)(p)) }

// MarshalJSONTo writes known fields in the order of the struct, then the unknown ones by name.
func (s *Scene) MarshalJSONTo(e *jsontext.Encoder) error {
	return json.MarshalEncode(e, (*sceneFields)(s))
}

// UnmarshalJSONFrom keeps unknown fields in Extra.
func (s *Scene) UnmarshalJSONFrom(d *jsontext.Decoder) error {
	return json.UnmarshalDecode(d, (*sceneFields)(s))
}

// MarshalJSON is MarshalJSONTo for encoding/json.
func (s *Scene) MarshalJSON() ([]byte, error) { return Encode(s) }

// UnmarshalJSON is UnmarshalJSONFrom for encoding/json.
func (s *Scene) UnmarshalJSON(b []byte) error { return json.Unmarshal(b, (*sceneFields)(s)) }

// MarshalJSONTo writes known fields in the order of the struct, then the unknown ones by name.
func (l *Layer) MarshalJSONTo(e *jsontext.Encoder) error {
	return json.MarshalEncode(e, (*layerFields)(l))
}

// UnmarshalJSONFrom keeps unknown fields in Extra.
func (l *Layer) UnmarshalJSONFrom(d *jsontext.Decoder) error {
	return json.UnmarshalDecode(d, (*layerFields)(l))
}

// MarshalJSON is MarshalJSONTo for encoding/json.
func (l *Layer) MarshalJSON() ([]byte, error) { return Encode(l) }

// UnmarshalJSON is UnmarshalJSONFrom for encoding/json.
func (l *Layer) UnmarshalJSON(b []byte) error { return json.Unmarshal(b, (*layerFields)(l)) }

// MarshalJSONTo writes known fields in the order of the struct, then the unknown ones by name.
func (m *Move) MarshalJSONTo(e *jsontext.Encoder) error {
	return json.MarshalEncode(e, (*moveFields)(m))
}

// UnmarshalJSONFrom keeps unknown fields in Extra.
func (m *Move) UnmarshalJSONFrom(d *jsontext.Decoder) error {
	return json.UnmarshalDecode(d, (*moveFields)(m))
}

// MarshalJSON is MarshalJSONTo for encoding/json.
func (m *Move) MarshalJSON() ([]byte, error) { return Encode(m) }

// UnmarshalJSON is UnmarshalJSONFrom for encoding/json.
func (m *Move) UnmarshalJSON(b []byte) error { return json.Unmarshal(b, (*moveFields)(m)) }

// Read decodes a document of this or an older version and validates it. A newer version, a missing
// one and any bad field are refused with an error in words; nothing is repaired silently.
func Read(data []byte) (*Project, error) {
	if err := CheckNesting(data); err != nil {
		return nil, fmt.Errorf("this is no Capstan document: %w", err)
	}
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
		var all map[string]jsontext.Value
		if err := json.Unmarshal(data, &all); err != nil {
			return nil, err
		}
		for v := *head.Version; v < Version; v++ {
			if err := upgrades[v](all); err != nil {
				return nil, fmt.Errorf("upgrading from version %d: %w", v, err)
			}
		}
		all["version"] = jsontext.Value(fmt.Sprint(Version))
		var err error
		if data, err = Encode(all); err != nil {
			return nil, err
		}
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
func (p *Project) Write() ([]byte, error) { return Encode(p.Settled()) }
