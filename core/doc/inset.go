package doc

// InsetUse plays an inset.
type InsetUse struct {
	Inset string  `json:"inset"`
	Start int64   `json:"start,omitzero"` // ms on the scene's clock
	Speed float64 `json:"speed,omitzero"` // 0 counts as 1
	Mode  string  `json:"mode,omitzero"`  // loop, there-and-back, stop
}

var insetKind = &Kind{
	Name: InsetKind, Words: "Inset", Unbuilt: "is an inset, which this Capstan cannot show yet",
	held: holds(func(l *Layer) **InsetUse { return &l.Inset }, nil, equal[InsetUse]),
}
