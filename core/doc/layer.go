package doc

// Layer kinds.
const (
	Group      = "group"
	Rectangle  = "rectangle"
	Ellipse    = "ellipse"
	PathKind   = "path"
	TextKind   = "text"
	Picture    = "picture"
	InsetKind  = "inset"
	MarkerKind = "marker"
)

// Layer is one thing on a page. Its identity across scenes is its thread.
type Layer struct {
	ID       string      `json:"id"`
	Thread   string      `json:"thread"`
	Name     string      `json:"name"`
	Kind     string      `json:"kind"`
	Place    Place       `json:"place"`
	Opacity  float64     `json:"opacity"`
	Fill     Fill        `json:"fill"`
	Stroke   *Stroke     `json:"stroke,omitzero"`  // shapes, paths and texts
	Blend    string      `json:"blend,omitzero"`   // with what lies under it; empty: normal
	Blur     float64     `json:"blur,omitzero"`    // px, deviation of a Gaussian
	Feather  float64     `json:"feather,omitzero"` // px over which its border fades, inwards
	Shadow   *Shadow     `json:"shadow,omitzero"`
	Glow     *Glow       `json:"glow,omitzero"`
	Adjust   *Adjust     `json:"adjust,omitzero"`  // what is done to the colours of what it shows
	Corner   float64     `json:"corner,omitzero"`  // px, pictures and shapes with corners
	Mask     string      `json:"mask,omitzero"`    // of a layer in a group: it is not painted, and the others show inside or outside of it
	Through  *Through    `json:"through,omitzero"` // another layer that it is seen through
	Shape    *Shape      `json:"shape,omitzero"`   // of shapes: what is not by default
	Path     string      `json:"path,omitzero"`    // SVG path data in the layer's own axes
	Text     *Text       `json:"text,omitzero"`
	Picture  *PictureUse `json:"picture,omitzero"`
	Marker   *Marker     `json:"marker,omitzero"`
	Made     *Made       `json:"made,omitzero"` // of a path or picture that was made of other layers
	Inset    *InsetUse   `json:"inset,omitzero"`
	Depth    float64     `json:"depth,omitzero"`  // how many times as far away it is as the page: it moves so much less; 0: 1
	Stays    bool        `json:"stays,omitzero"`  // it stays while the view moves
	Column   string      `json:"column,omitzero"` // its name for tables: what fills its words, or its picture, in variants
	Tint     int         `json:"tint,omitzero"`   // 0..7, the row's colour in the timeline
	Locked   bool        `json:"locked,omitzero"`
	Hidden   bool        `json:"hidden,omitzero"`
	Moves    []*Move     `json:"moves,omitzero"`
	Children []*Layer    `json:"children,omitzero"`
	Extra    Extra       `json:",embed"`
}

// Place says where a layer rests, in its parent's axes. The origin (X, Y) is the centre of shapes
// and pictures. Text hangs from its origin: the origin is the middle of its upper edge, or the
// upper corner it is aligned to. A group's origin is where its children's coordinates begin.
type Place struct {
	X     float64     `json:"x"`
	Y     float64     `json:"y"`
	W     float64     `json:"w,omitzero"`
	H     float64     `json:"h,omitzero"`
	Turn  float64     `json:"turn,omitzero"`
	FlipX bool        `json:"flipX,omitzero"`
	FlipY bool        `json:"flipY,omitzero"`
	Pivot *[2]float64 `json:"pivot,omitzero"` // in the layer's own axes; default: middle of its box
}
