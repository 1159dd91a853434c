// Package fields describes what can be set of layers and moves, for whoever shows it: what it is called, its unit and range, what there is to
// choose from and by which control it is set. An interface makes its fields from this, so that what the core learns appears there by itself.
package fields

import (
	"strings"

	"capstan/core/doc"
	"capstan/core/effect"
)

// Controls by which a value is set.
const (
	Number    = effect.Number
	Choice    = effect.Choice
	Signs     = effect.Signs     // a choice of a few that are drawn
	Direction = effect.Direction // degrees clockwise, 0 to the right
	List      = effect.List      // numbers, one for each
	Move      = effect.Move      // another move of the scene, by id
	Colour    = effect.Colour    // as #rrggbb
	Layer     = effect.Layer     // another layer of the scene, by its thread
)

// Field is one value that can be set.
type Field struct {
	Path    string   `json:"path"`    // in what it belongs to: params.angle, shape.hole
	Words   string   `json:"words"`   // beside it
	Out     string   `json:"out"`     // the same of an exit, where it differs
	Name    string   `json:"name"`    // by itself
	Control string   `json:"control"` // Number, Choice, Signs, Direction, List, Colour, Move or Layer
	Unit    string   `json:"unit"`
	Times   float64  `json:"times"` // what is shown is the value times this: 100 for shares in %
	Least   float64  `json:"least"` // as it is shown
	Most    float64  `json:"most"`
	Step    float64  `json:"step"` // of the arrow keys
	Digits  int      `json:"digits"`
	Whole   bool     `json:"whole"`   // whole numbers alone
	Clears  bool     `json:"clears"`  // 0 is taken away instead of being written
	Usual   any      `json:"usual"`   // what a missing value is; null: 0, or nothing
	Options []Option `json:"options"` // of a Choice or Signs
	Four    bool     `json:"four"`    // of directions only left, right, up and down
	Needs   string   `json:"needs"`   // shown only where the value at this path is set
	NeedsIs string   `json:"needsIs"` // and is this word; empty: whatever it is
	NoUnit  bool     `json:"noUnit"`  // not of moves that go unit by unit
	NoPage  bool     `json:"noPage"`  // not of transitions
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

func (f Field) kept() Field { f.Clears = false; return f }

func (f Field) digits(n int) Field { f.Digits = n; return f }

func (f Field) whole() Field { f.Whole, f.Clears = true, false; return f }

func choice(path, words, name string, of ...Option) Field {
	return Field{Path: path, Words: words, Name: name, Control: Choice, Times: 1, Options: of}
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

// Effects returns the parameters of every effect, by its name.
func Effects() map[string][]Field {
	all := map[string][]Field{}
	for _, e := range effect.All() {
		list := []Field{}
		for i := range e.Params {
			list = append(list, of(&e.Params[i])...)
		}
		all[e.Name] = list
	}
	return all
}

// of describes a parameter: a choice of which any number may be typed is two fields.
func of(q *effect.Param) []Field {
	f := Field{
		Path: "params." + q.Name, Words: q.Words, Out: q.Out, Name: q.Label, Control: q.Control, Unit: q.Unit, Times: q.Times, Least: q.Least, Most: q.Most,
		Step: q.Step, Digits: q.Digits, Whole: q.Whole, Usual: q.Usual, Options: []Option{}, Four: q.Four, NoUnit: q.NoUnit, NoPage: q.NoPage,
	}
	if q.Needs != "" {
		f.Needs, f.NeedsIs = "params."+q.Needs, q.NeedsIs
	}
	for _, o := range q.Options {
		f.Options = append(f.Options, Option{o.Value, o.Words, o.Sign})
	}
	if q.Free == "" {
		return []Field{f}
	}
	n := f
	n.Control, n.Words, n.Out, n.Name, n.Needs, n.Least, n.Step, n.Options = Number, q.Free, "", q.Free, f.Path, 1, 1, []Option{}
	return []Field{f, n}
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

// Adjusts are what can be done to the colours of a layer, in the order in which it is done.
var Adjusts = []Field{
	share("adjust.sharpness", "Sharpness", "Sharpness", 0, 100).shared(),
	share("adjust.brightness", "Brightness", "Brightness", -100, 100).shared(),
	share("adjust.contrast", "Contrast", "Contrast", -100, 100).shared(),
	share("adjust.saturation", "Saturation", "Saturation", -100, 100).shared(),
	number("adjust.hue", "Hue", "Hue", "°", -180, 180),
	share("adjust.warmth", "Warmth", "Warmth", -100, 100).shared(),
}

// shared is a share of which 0 is not written.
func (f Field) shared() Field { f.Clears = true; return f }

// Ratio is a ratio of sides that pictures are cut to.
type Ratio struct {
	Words  string  `json:"words"`
	Across float64 `json:"across"`
	Down   float64 `json:"down"`
}

// Ratios are those that are offered.
var Ratios = []Ratio{{"1 : 1", 1, 1}, {"4 : 3", 4, 3}, {"3 : 2", 3, 2}, {"16 : 9", 16, 9}, {"4 : 5", 4, 5}, {"9 : 16", 9, 16}}

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
	Words   string `json:"words"` // under its heading
	Name    string `json:"name"`  // by itself
	Kind    string `json:"kind"`
	Effect  string `json:"effect"`
	Variant string `json:"variant"` // of the effect; empty: the plain one
	Finds   string `json:"-"`       // everyday words that it is looked for by
}

// Offers are moves that do one thing, under its heading.
type Offers struct {
	Heading string  `json:"heading"`
	Moves   []Offer `json:"moves"`
}

// ways are the lines of motion paths that are offered.
var ways = []Offer{
	{"Straight", "Straight path", doc.MotionPath, doc.Along, "", "motion path fly travel move route journey line go cross"},
	{"Arc", "Arc", doc.MotionPath, doc.Along, "arc", "path curve throw jump bow leap hop"},
	{"Wave", "Wave", doc.MotionPath, doc.Along, "wave", "path wavy snake sine swim flutter"},
	{"Ellipse", "Ellipse", doc.MotionPath, doc.Along, "ellipse", "path orbit circle round planet around"},
}

// becomes are changes that are offered, each with what it makes of a layer.
var becomes = []Offer{
	{"From here", "Change from here", doc.Change, doc.Becoming, "", "change become turn into second state new pose different colour"},
	{"Emphasise", "Emphasise", doc.Change, doc.Becoming, "emphasise", "emphasis highlight pulse stress attention bigger pop"},
	{"Grow", "Grow", doc.Change, doc.Becoming, "grow", "bigger larger enlarge zoom scale up"},
	{"Shrink", "Shrink", doc.Change, doc.Becoming, "shrink", "smaller less reduce scale down"},
	{"Turn", "Turn", doc.Change, doc.Becoming, "turn", "rotate quarter ninety swing"},
	{"Gather", "Gather", doc.Change, doc.Becoming, "gather", "letters together closer draw in contract collect tighten"},
	{"Scatter", "Scatter", doc.Change, doc.Becoming, "scatter", "letters apart burst explode spread out loosen"},
	{"Push in", "Push in", doc.Change, doc.Becoming, "push", "view zoom closer camera nearer"},
	{"Pull out", "Pull out", doc.Change, doc.Becoming, "pull", "view zoom wider camera farther"},
	{"Pan across", "Pan across", doc.Change, doc.Becoming, "pan", "view camera sideways across scroll"},
	{"Dim", "Dim", doc.Change, doc.Becoming, "dim", "fade back darken faint transparent opacity"},
}

// Moves returns all moves that can be added, by what they do, in the order in which they are offered.
func Moves() []Offers {
	list := []Offers{}
	for _, of := range [][2]string{{doc.Entrance, "Comes in"}, {doc.Loop, "Goes on"}, {doc.Change, "Changes"}, {doc.MotionPath, "Travels"}, {doc.Exit, "Goes out"}} {
		o := Offers{of[1], []Offer{}}
		if of[0] == doc.MotionPath {
			o.Moves = ways
		}
		if of[0] == doc.Change {
			o.Moves = becomes
		}
		for _, e := range effect.All() {
			for _, w := range e.Offered(of[0]) {
				o.Moves = append(o.Moves, Offer{w.Words, w.Name, w.Kind, e.Name, w.Variant, e.Finds})
			}
		}
		list = append(list, o)
	}
	return list
}

// Page is a kind of transition.
type Page struct {
	Kind   string `json:"kind"`
	Words  string `json:"words"`
	Leaves string `json:"leaves"` // its sign: SVG paths within 10 px about a middle, of the page that goes
	Comes  string `json:"comes"`  // and of the one that comes
	Turns  bool   `json:"turns"`  // the sign is turned in the direction of travel
}

// Pages returns the kinds of transitions, in the order in which they are offered.
func Pages() []Page {
	list := []Page{
		{Kind: doc.Cut, Words: "Cut"},
		{Kind: doc.Crossfade, Words: "Crossfade", Leaves: "M-11 9L11 -9", Comes: "M-11 -9L11 9"},
		{Kind: doc.Morph, Words: "Morph"},
	}
	for _, e := range effect.All() {
		if e.Pages != nil {
			list = append(list, Page{e.Name, e.Words, e.Pages.Sign[0], e.Pages.Sign[1], e.Pages.Turns})
		}
	}
	return list
}

// All is all that is described.
type All struct {
	Shapes  map[string][]Field `json:"shapes"`  // numbers of shapes by kind
	Effects map[string][]Field `json:"effects"` // of moves by effect
	Looks   LookFields         `json:"looks"`
	Adjusts []Field            `json:"adjusts"` // what is done to the colours of layers
	Ratios  []Ratio            `json:"ratios"`  // that pictures are cut to
	Rounded []string           `json:"rounded"` // kinds whose corners can be rounded
	Kinds   map[string]string  `json:"kinds"`   // what each kind of layer is called
	Moves   []Offers           `json:"moves"`
	Pages   []Page             `json:"pages"` // kinds of transitions
}

// Described returns all that is described.
func Described() All {
	kinds := map[string]string{}
	for _, k := range doc.Kinds {
		kinds[k.Name] = strings.ToLower(k.Words)
	}
	kinds[doc.PathKind] = "drawn path" // a new one is called Drawing
	return All{Shapes, Effects(), Looks, Adjusts, Ratios, Rounded, kinds, Moves(), Pages()}
}
