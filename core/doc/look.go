package doc

// Fill kinds.
const (
	NoFill      = "none"
	Solid       = "colour"
	Linear      = "linear"
	Radial      = "radial"
	PictureFill = "picture" // a picture that covers the box
	Texture     = "texture" // a picture that is laid side by side without a seam
)

// Fill is what a shape is filled with.
type Fill struct {
	Kind     string    `json:"kind"`              // none, colour, linear, radial, picture, texture
	Colour   string    `json:"colour,omitzero"`   // #rrggbb or #rrggbbaa
	Role     string    `json:"role,omitzero"`     // a colour role of the scene, before Colour
	Tone     int       `json:"tone,omitzero"`     // -5..5: steps darker or lighter than the role
	Gradient *Gradient `json:"gradient,omitzero"` // of linear and radial fills
	Media    string    `json:"media,omitzero"`    // of pictures and textures
	Size     float64   `json:"size,omitzero"`     // of a texture: width of a tile in px; 0: as many as the picture has
}

// Graded reports whether the fill is a gradient.
func (f *Fill) Graded() bool { return f.Kind == Linear || f.Kind == Radial }

// Gradient runs through colours. Its points are shares of the layer's box, 0 at the left or top, 1 at the right or bottom; they
// may lie outside. Distances are those on the layer: a radial gradient is round, whatever its box, unless its ratio says how flat
// it is.
type Gradient struct {
	From  [2]float64  `json:"from"`           // where it begins; the middle of a radial one
	To    [2]float64  `json:"to"`             // where it ends; on the rim of a radial one
	Focus *[2]float64 `json:"focus,omitzero"` // of a radial one: where its first colour is; default: its middle
	Ratio float64     `json:"ratio,omitzero"` // of a radial one: how far it reaches across its line, as a share of that; 0: as far, a circle
	Stops []Stop      `json:"stops"`          // 2 to 32
}

// Stop is a colour of a gradient.
type Stop struct {
	At     float64 `json:"at"` // 0..1, not below the one before
	Colour string  `json:"colour"`
	Role   string  `json:"role,omitzero"` // a colour role of the scene, before Colour
	Tone   int     `json:"tone,omitzero"` // -5..5: steps darker or lighter than the role
}

// Sides of a stroke, whose empty side is the middle, and of a mask.
const (
	Inside  = "inside"
	Outside = "outside"
)

// Stroke is a line along the outline of a shape, path or text.
type Stroke struct {
	Fill       Fill      `json:"fill"`
	Width      float64   `json:"width"`               // px
	Side       string    `json:"side,omitzero"`       // "", inside, outside
	Cap        string    `json:"cap,omitzero"`        // "": butt, round, square
	Join       string    `json:"join,omitzero"`       // "": miter, round, bevel
	MiterLimit float64   `json:"miterLimit,omitzero"` // miter length in widths; 0: 4
	Dash       []float64 `json:"dash,omitzero"`       // dashes and gaps in turn, px
	DashOffset float64   `json:"dashOffset,omitzero"` // px into the pattern
	StartHead  string    `json:"startHead,omitzero"`  // of open lines: "", triangle, open, dot, bar
	EndHead    string    `json:"endHead,omitzero"`

	Trim *[2]float64 `json:"trim,omitzero"` // shares of the line's length, 0..1, between which it is drawn
}

// Shadow is cast by a layer. It falls the same way on the page however the layer is turned.
type Shadow struct {
	X      float64 `json:"x"`             // px to the right
	Y      float64 `json:"y"`             // px down
	Blur   float64 `json:"blur,omitzero"` // px, deviation of a Gaussian
	Colour string  `json:"colour"`        // #rrggbb or #rrggbbaa
	Role   string  `json:"role,omitzero"` // a colour role of the scene, before Colour
	Tone   int     `json:"tone,omitzero"` // -5..5: steps darker or lighter than the role
}

// Glow is light around a layer.
type Glow struct {
	Blur   float64 `json:"blur"`          // px, deviation of a Gaussian
	Colour string  `json:"colour"`        // #rrggbb or #rrggbbaa
	Role   string  `json:"role,omitzero"` // a colour role of the scene, before Colour
	Tone   int     `json:"tone,omitzero"` // -5..5: steps darker or lighter than the role
}

// Look is how a layer is painted, whatever it shows.
type Look struct {
	Fill    Fill    `json:"fill"`
	Stroke  *Stroke `json:"stroke,omitzero"`
	Opacity float64 `json:"opacity"`
	Blend   string  `json:"blend,omitzero"`
	Blur    float64 `json:"blur,omitzero"`
	Feather float64 `json:"feather,omitzero"`
	Shadow  *Shadow `json:"shadow,omitzero"`
	Glow    *Glow   `json:"glow,omitzero"`
	Adjust  *Adjust `json:"adjust,omitzero"`
	Corner  float64 `json:"corner,omitzero"`
}

// SavedLook is a look that was put aside under a name.
type SavedLook struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Look Look   `json:"look"`
}
