// Package fields describes what can be set of layers and moves, for whoever shows it: what it is called, its unit and range, what there is to
// choose from and by which control it is set. An interface makes its fields from this, so that what the core learns appears there by itself.
package fields

import (
	"strings"

	"capstan/core/doc"
)

// Controls by which a value is set.
const (
	Number    = "number"
	Choice    = "choice"
	Signs     = "signs"     // a choice of a few that are drawn
	Direction = "direction" // degrees clockwise, 0 to the right
)

// Field is one value that can be set.
type Field struct {
	Path    string   `json:"path"`    // in what it belongs to: rock.angle, shape.hole
	Words   string   `json:"words"`   // beside it
	Out     string   `json:"out"`     // the same of an exit, where it differs
	Name    string   `json:"name"`    // by itself
	Control string   `json:"control"` // Number, Choice, Signs or Direction
	Unit    string   `json:"unit"`
	Times   float64  `json:"times"` // what is shown is the value times this: 100 for shares in %
	Least   float64  `json:"least"` // as it is shown
	Most    float64  `json:"most"`
	Step    float64  `json:"step"` // of the arrow keys
	Digits  int      `json:"digits"`
	Whole   bool     `json:"whole"`   // whole numbers alone
	Clears  bool     `json:"clears"`  // 0 is taken away instead of being written; a missing value is 0
	Options []Option `json:"options"` // of a Choice or Signs
	Four    bool     `json:"four"`    // of directions only left, right, up and down
	Needs   string   `json:"needs"`   // shown only where the value at this path is set
	NoUnit  bool     `json:"noUnit"`  // not of moves that go unit by unit
}

// Option is one of what there is to choose from.
type Option struct {
	Value any    `json:"value"` // as it is written; null: nothing is
	Words string `json:"words"`
	Sign  string `json:"sign"` // the name of its drawing
}

// number is a field for a number; where nothing is said of them it has steps of 1, and 0 is not written.
func number(path, words, name, unit string, least, most float64) Field {
	return Field{Path: path, Words: words, Name: name, Control: Number, Unit: unit, Times: 1, Least: least, Most: most, Step: 1, Options: []Option{}, Clears: true}
}

// share is a field for a share, in %.
func share(path, words, name string, least, most float64) Field {
	f := number(path, words, name, "%", least, most)
	f.Times, f.Clears = 100, false
	return f
}

func (f Field) cleared() Field { f.Clears = true; return f }

func (f Field) kept() Field { f.Clears = false; return f }

func (f Field) digits(n int) Field { f.Digits = n; return f }

func (f Field) whole() Field { f.Whole, f.Clears = true, false; return f }

func (f Field) needs(path string) Field { f.Needs = path; return f }

func (f Field) noUnit() Field { f.NoUnit = true; return f }

func choice(path, words, name string, of ...Option) Field {
	return Field{Path: path, Words: words, Name: name, Control: Choice, Times: 1, Options: of}
}

func direction(effect string) Field {
	return Field{Path: effect + ".direction", Words: "Travels", Out: "Goes", Name: "Direction of travel", Control: Direction, Times: 1, Least: -360, Most: 360, Step: 1, Options: []Option{}, Clears: true}
}

// Shapes are the numbers of shapes by kind, in shape.
var Shapes = map[string][]Field{
	doc.Ring: {share("hole", "Hole", "Hole", 0, 100)},
	doc.Sector: {
		number("start", "Start", "Start", "°", -360, 360).kept(),
		number("sweep", "Sweep", "Sweep", "°", 1, 360).kept(),
		share("hole", "Hole", "Hole", 0, 100),
		choice("open", "Shown", "What of the sector is shown", Option{Value: false, Words: "slice"}, Option{Value: true, Words: "its arc only"}),
	},
	doc.Polygon: {number("count", "Sides", "Sides", "", 3, 100).whole()},
	doc.Star: {
		number("count", "Points", "Points", "", 3, 100).whole(),
		share("depth", "Depth", "Depth", 0, 100),
	},
	doc.Arrow: {
		share("thickness", "Shaft", "Shaft", 1, 100),
		share("head", "Head", "Head", 5, 10000),
		{Path: "heads", Words: "Heads", Name: "Heads of the arrow", Control: Signs, Times: 1, Options: []Option{
			{Value: "start", Words: "At its start", Sign: "head start"},
			{Value: nil, Words: "At its end", Sign: "head end"},
			{Value: "both", Words: "At both ends", Sign: "head both"},
		}},
	},
	doc.Bubble: {share("base", "Tail", "Tail", 1, 100)},
	doc.Cross:  {share("thickness", "Arms", "Arms", 1, 100)},
	doc.Cloud:  {number("count", "Humps", "Humps", "", 3, 100).whole()},
	doc.Wave: {
		number("count", "Waves", "Waves", "", 1, 100).whole(),
		share("depth", "Height", "Height", 0, 100),
	},
	doc.Ribbon: {share("thickness", "Width", "Width", 1, 100)},
}

// Effects are the numbers of moves by their effect.
var Effects = map[string][]Field{
	doc.Wipe: {
		direction(doc.Wipe),
		number("wipe.softness", "Soft by", "Softness of the edge", "px", 0, 4000),
	},
	doc.Slide: {
		direction(doc.Slide),
		func() Field {
			f := choice("slide.distance", "From", "How far it slides", Option{Value: nil, Words: "off the page"}, Option{Value: 200, Words: "a distance, with a fade"})
			f.Out, f.NoUnit = "To", true
			return f
		}(),
		number("slide.distance", "Distance", "Distance of the slide", "px", 1, 1e6).kept().needs("slide.distance").noUnit(),
	},
	doc.Spin: {
		choice("spin.anticlockwise", "Sense", "Sense", Option{Value: nil, Words: "↻ clockwise"}, Option{Value: true, Words: "↺ anticlockwise"}),
	},
	doc.Rock: {
		number("rock.angle", "Strength", "Angle to either side", "°", -360, 360).kept().digits(1),
		share("rock.phase", "Ahead by", "Share of a cycle that it is ahead by", 0, 100).cleared(),
	},
	doc.Scroll: {
		func() Field { f := direction(doc.Scroll); f.Four = true; return f }(),
		number("scroll.speed", "Speed", "Speed in px a second", "", 1, 100000).kept(),
		number("scroll.gap", "Gap", "Gap between two copies; below 0 they overlap", "px", -1e6, 1e6),
	},
}

// LookFields are the fields of any layer's look.
type LookFields struct {
	Opacity Field `json:"opacity"`
	Corner  Field `json:"corner"` // of Rounded
	Blend   Field `json:"blend"`
	Blur    Field `json:"blur"`
	Feather Field `json:"feather"`
}

// Looks are what can be set of any layer's look.
var Looks = LookFields{
	Opacity: share("opacity", "Opacity", "Opacity", 0, 100),
	Corner:  number("corner", "Corner", "Corner radius", "", 0, 1e6),
	Blend:   choice("blend", "Blend", "Blend", blends()...),
	Blur:    number("blur", "Blur", "Blur", "px", 0, 500).digits(1),
	Feather: number("feather", "feather", "Feather", "px", 0, 500),
}

// Rounded are the kinds of layers whose corners can be rounded.
var Rounded = []string{doc.Rectangle, doc.Picture, doc.Polygon, doc.Star, doc.Arrow, doc.Bubble, doc.Cross}

func blends() (list []Option) {
	for _, name := range doc.Blends {
		o := Option{Value: name, Words: strings.ToUpper(name[:1]) + strings.ReplaceAll(name[1:], "-", " ")}
		if name == "normal" {
			o.Value = nil
		}
		list = append(list, o)
	}
	return
}

// Offer is a move that can be added.
type Offer struct {
	Words  string `json:"words"` // under its heading
	Name   string `json:"name"`  // by itself
	Kind   string `json:"kind"`
	Effect string `json:"effect"`
}

// Offers are moves that do one thing, under its heading.
type Offers struct {
	Heading string  `json:"heading"`
	Moves   []Offer `json:"moves"`
}

// Moves are all moves that can be added, by what they do, in the order in which they are offered.
var Moves = []Offers{
	{"Comes in", []Offer{
		{"Fade", "Fade in", doc.Entrance, doc.Fade}, {"Slide", "Slide in", doc.Entrance, doc.Slide}, {"Wipe", "Wipe in", doc.Entrance, doc.Wipe},
		{"At once (appears)", "At once in", doc.Entrance, doc.AtOnce},
	}},
	{"Goes out", []Offer{
		{"Fade", "Fade out", doc.Exit, doc.Fade}, {"Slide", "Slide out", doc.Exit, doc.Slide}, {"Wipe", "Wipe out", doc.Exit, doc.Wipe},
		{"At once (vanishes)", "At once out", doc.Exit, doc.AtOnce},
	}},
	{"Goes on and on", []Offer{{"Spin", "Spin", doc.Loop, doc.Spin}, {"Rock", "Rock", doc.Loop, doc.Rock}, {"Scroll", "Scroll", doc.Loop, doc.Scroll}}},
	{"Travels", []Offer{{"Motion path", "Motion path", doc.MotionPath, doc.Along}}},
}

// All is all that is described.
type All struct {
	Shapes  map[string][]Field `json:"shapes"`  // numbers of shapes by kind
	Effects map[string][]Field `json:"effects"` // of moves by effect
	Looks   LookFields         `json:"looks"`
	Rounded []string           `json:"rounded"` // kinds whose corners can be rounded
	Kinds   map[string]string  `json:"kinds"`   // what each kind of layer is called
	Moves   []Offers           `json:"moves"`
}

// Described returns all that is described.
func Described() All {
	kinds := map[string]string{}
	for _, k := range doc.Kinds {
		kinds[k.Name] = strings.ToLower(k.Words)
	}
	kinds[doc.PathKind] = "drawn path" // a new one is called Drawing
	return All{Shapes, Effects, Looks, Rounded, kinds, Moves}
}
