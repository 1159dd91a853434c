package frame

import (
	"fmt"
	"maps"
	"reflect"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/state"
	"capstan/core/text"
)

// Assets is what a film needs beside its document: font bytes. Facts about pictures are in the document;
// pixels are the painters' business.
type Assets struct{ Fonts *text.Book }

// Film is a compiled document. It does not change, and may be played by several Players at once.
type Film struct {
	Doc      *doc.Project
	Order    *motion.Order
	Geometry *Store
	Pictures []string // media hashes; display lists name pictures by their place here

	assets   Assets
	serial   int
	scenes   []*scene
	captions []caption
	strands  []*strand      // strands[i]: the transition into scene i; the last one closes the film
	bends    map[int]*bends // by the first scene that a run of morphs goes into
	plans    plans
	prepared int // strands whose morphs are planned
	layouts  map[string]*text.Layout
	picture  map[string]uint32
	joints   map[*layer]*joint // of all scenes; nil where there are none
	points   map[*layer]bool   // likewise: what follows the tips of what is drawn
	page     uint32            // outline of the page
	broad    uint32            // one that goes beyond it on all sides, for pages that are moved: what cuts them has the edge
	unit     uint32            // of a box of 1 by 1
}

type scene struct {
	doc        *doc.Scene
	into       int64
	continues  bool
	lasting    map[string][]motion.Lasting
	marks      map[string]place // of its markers, by layer id; nil where it has none
	timing     *motion.Timing
	background Paint
	layers     []*layer
	joints     map[*layer]*joint
	view       *layer // what part of the page it shows; nil: all of it
	byID       map[string]*layer
	byThread   map[string]*layer
	pointers   map[*layer]bool         // what follows the tips of what is drawn; nil where nothing does
	driven     map[*motion.Tie]*driven // the edges that other layers drive; nil where none are
}

// layer is a compiled layer: its outlines in its own axes, its box and pivot, and what moves it.
type layer struct {
	doc      *doc.Layer
	parent   *layer
	children []*layer
	track    *motion.Track
	pivot    geom.Point
	rest     geom.Matrix // to its parent's axes, at rest
	edge     *outlined   // how its one outline lies; nil where it is more
	reaches  geom.Box    // what it paints in at rest, in its own axes: box, strokes, plate, effects
	drawings []*drawing  // how it is drawn, where a move draws it
	becomes  becomings   // what its changes make of it
	of       *layer      // the layer that has become this; nil: it is itself
	through  *layer      // what it is seen through; nil: nothing
	outlines
}

// outlines is what a layer looks like in its own axes.
type outlines struct {
	box     geom.Box
	shapes  []shape
	picture uint32
	covers  *doc.Covers // of a picture that is cut out: where it is seen; nil: everywhere
	lines   []geom.Box  // of texts: where a pointer finds them
	path    *geom.Path  // of drawn paths
	spec    state.Spec  // of shapes
	pieces  []piece     // of texts whose moves divide them
	plate   *shape      // behind a text
	scale   float64     // of the sizes of a text, to fit its box
	over    float64     // px that the lines of a text are higher than its box
	effects Effects     // but for the opacity
	alone   bool        // is painted by itself before it is laid over the page, whatever its opacity
}

// piece is a line, word or letter of a text.
type piece struct {
	unit    motion.Unit
	box     geom.Box
	shapes  []shape
	reaches geom.Box // with its strokes and its part of the plate
	region  uint32   // the outline of the part of the plate that comes with it; 0: none does
}

// shape is an outline with what it is painted with. Strokes come after the fills they lie on.
type shape struct {
	key   uint32
	paint Paint
	faint float64 // how much of the layer's fill it lacks
	shade float64 // how much darker than the layer's fill it is
	side  string  // of a stroke that lies on one side of its line: of, whose inside or outside it keeps to
	of    uint32
}

// CompileFilm is Compile of the film of an id; an empty one is that of the project's first. Without such a film the error says so in words.
func CompileFilm(p *doc.Project, id string, a Assets) (*Film, error) {
	q, err := p.FilmOf(id)
	if err != nil {
		return nil, err
	}
	return Compile(q, a, nil)
}

// Beside compiles another document with the fonts of this film.
func (f *Film) Beside(p *doc.Project) (*Film, error) { return Compile(p, f.assets, nil) }

// Compile makes a film of a validated document. Given the film compiled before, it shares what did not change:
// scenes that are the same value, outlines and layouts with the same content. It fails where the
// moves of a scene hang on each other in a ring.
func Compile(p *doc.Project, assets Assets, before *Film) (*Film, error) {
	f := &Film{Doc: p, assets: assets, serial: assets.Fonts.Serial(), picture: map[string]uint32{}}
	if before != nil && before.serial == f.serial && len(before.Geometry.paths) < maxOutlines {
		f.Geometry, f.layouts = before.Geometry, before.layouts
	} else {
		next := uint32(0)
		if before != nil {
			next = before.Geometry.next
		}
		f.Geometry, f.layouts = newStore(next), map[string]*text.Layout{}
		before = nil
	}
	if before != nil {
		f.Pictures = append(f.Pictures, before.Pictures...)
		for i, h := range f.Pictures {
			f.picture[h] = uint32(i)
		}
	}
	f.page = f.Geometry.rectangle(geom.Box{Max: geom.Point{X: float64(p.Film.Width), Y: float64(p.Film.Height)}}, 0)
	f.broad = f.Geometry.rectangle(f.pageBox().Grow(float64(max(p.Film.Width, p.Film.Height))), 0)
	f.unit = f.Geometry.rectangle(one, 0)
	old, byID := map[*doc.Scene]*scene{}, map[string]*scene{}
	if before != nil {
		for _, s := range before.scenes {
			old[s.doc], byID[s.doc.ID] = s, s
		}
	}
	// First the times: what lasts as long as its thread needs those of all scenes.
	stays := make([]int64, len(p.Film.Scenes))
	intos := make([]int64, len(p.Film.Scenes))
	timings := make([]*motion.Timing, len(p.Film.Scenes))
	for i, d := range p.Film.Scenes {
		if i > 0 {
			intos[i] = d.Transition.Duration // 0 where it is set aside
		} else if p.Film.Closing != nil && p.Film.Loop {
			intos[i] = p.Film.Closing.Duration
		}
		if s := old[d]; s != nil && s.into == intos[i] {
			timings[i] = s.timing
		} else if was := byID[d.ID]; was != nil && was.into == intos[i] && doc.SameTimes(was.doc, d) {
			timings[i] = was.timing
		} else {
			t, err := motion.Resolve(d, intos[i])
			if err != nil {
				return nil, fmt.Errorf("scene “%s”: %w", d.Name, err)
			}
			timings[i] = t
		}
		stays[i] = timings[i].Stay
	}
	f.Order = motion.NewOrder(&p.Film, stays)
	lasting := motion.LastingPaths(&p.Film, f.Order)
	marks := markers(&p.Film, func(d *doc.Scene) bool {
		s := old[d]
		return s != nil && s.marks == nil
	})
	joined := false
	shared := true // the scene before is the one it was
	for i, d := range p.Film.Scenes {
		var here map[string][]motion.Lasting
		if lasting != nil {
			here = lasting[i]
		}
		var marked map[string]place
		if marks != nil {
			marked = marks[i]
		}
		s := old[d]
		if s != nil && s.timing == timings[i] && (!s.continues || shared) && reflect.DeepEqual(s.lasting, here) && maps.Equal(s.marks, marked) {
			shared = i == 0 || before.precedes(f.scenes[i-1], s)
		} else {
			s = f.compileScene(d, intos[i], timings[i], here, marked, byID[d.ID])
			shared = false
			if i > 0 && !d.Aside {
				link(f.scenes[i-1], s)
			}
		}
		f.scenes = append(f.scenes, s)
		switch {
		case len(s.joints) == 0:
		case f.joints == nil:
			f.joints = s.joints // most films have few such scenes
		default:
			if !joined { // the first of them is that of its scene
				f.joints, joined = maps.Clone(f.joints), true
			}
			maps.Copy(f.joints, s.joints)
		}
		if len(s.pointers) > 0 {
			if f.points == nil {
				f.points = map[*layer]bool{}
			}
			maps.Copy(f.points, s.pointers)
		}
	}
	for i, s := range f.scenes {
		t, from := s.doc.Transition, i-1
		var senses map[string]string
		if i == 0 {
			if f.Order.Closing == 0 {
				f.strands = append(f.strands, &strand{ease: motion.Linear})
				continue
			}
			t, from = *p.Film.Closing, len(p.Film.Shown())-1
			senses = f.senses(f.scenes[from], s, &t)
		}
		if before != nil && i < len(before.strands) {
			if o := before.strands[i]; o.a == f.scenes[from] && o.b == s && o.transition.Equal(&t) && maps.Equal(o.senses, senses) {
				f.strands = append(f.strands, o)
				continue
			}
		}
		f.strands = append(f.strands, newStrand(f.scenes[from], s, t, senses))
	}
	f.bend()
	f.compileCaptions(before)
	return f, nil
}

// precedes reports whether a came right before b in f.
func (f *Film) precedes(a, b *scene) bool {
	for i := 1; i < len(f.scenes); i++ {
		if f.scenes[i] == b {
			return f.scenes[i-1] == a
		}
	}
	return false
}

func link(a, b *scene) {
	for thread, l := range b.byThread {
		if before := a.byThread[thread]; before != nil {
			motion.Link(before.track, l.track, a.timing.Stay, b.into)
		}
	}
}

// compileScene makes a scene; was is what was made of it before, whose layers that have not changed are kept: whole, where nothing
// that moves them has changed either, else their outlines.
func (f *Film) compileScene(d *doc.Scene, into int64, t *motion.Timing, lasting map[string][]motion.Lasting, marks map[string]place, was *scene) *scene {
	if was != nil && !maps.Equal(was.doc.Roles, d.Roles) {
		was = nil // colours may come from roles
	}
	if was != nil && !maps.Equal(was.marks, marks) {
		was = nil // markers show another scene
	}
	s := &scene{
		doc: d, into: into, timing: t, lasting: lasting, marks: marks,
	}
	if !f.Doc.Film.Clear {
		s.background = f.paintOf(d.Background, d, f.pageBox())
	}
	n := len(d.Layers)
	if was != nil {
		n = len(was.byID)
	}
	s.byID, s.byThread = make(map[string]*layer, n), make(map[string]*layer, n)
	b := &builder{f, s, was, was != nil && was.doc.View() != d.View(), was != nil && was.timing == t && into == was.into && reflect.DeepEqual(was.lasting, lasting)}
	s.layers = b.layers(d.Layers, nil)
	s.linkThrough()
	f.layAlong(s, s.layers)
	if v := d.View(); v != nil {
		s.view = s.byID[v.ID]
	}
	size := 0
	if was != nil {
		size = len(was.joints)
	}
	s.joints = make(map[*layer]*joint, size)
	f.join(s.layers, s.joints)
	f.measureSlides(s, s.layers, was)
	f.compileDrawings(s, s.layers, nil, geom.Identity)
	f.tie(s, s.layers)
	return s
}

// builder makes the layers of a scene.
type builder struct {
	f         *Film
	s         *scene
	was       *scene // what was made of the scene before, or nil
	looks     bool   // it shows another part of the page than was
	sameTimes bool   // all that moves layers lies where it lay in was
}

// keep takes over a layer of before with all that is inside it.
func (b *builder) keep(l *layer) {
	b.s.byID[l.doc.ID], b.s.byThread[l.doc.Thread] = l, l
	for _, c := range l.children {
		b.keep(c)
	}
}

// settled reports whether a layer of before is good as it is. One with a loop that goes on from the scene before is not: its
// phase is set by linking. Nor is one that rolls by another layer's scroll.
func (l *layer) settled() bool {
	if l.doc.Through != nil { // what it names may be another now
		return false
	}
	for _, m := range l.doc.Moves {
		if m.Continues != "" || m.NamesMove() || m.Tied() || m.Path != nil && m.Path.Along != "" {
			return false
		}
	}
	for _, c := range l.children {
		if !c.settled() {
			return false
		}
	}
	return true
}

// leavesPage reports whether a move of a layer, or of one in it, goes off what is seen.
func (l *layer) leavesPage() bool {
	for _, m := range l.doc.Moves {
		if c := m.Comes(); c != nil && c.OffPage != nil {
			return true
		}
	}
	return slices.ContainsFunc(l.children, (*layer).leavesPage)
}

// again is a layer of before as it is here: where what is seen has changed, measureSlides is to tell again how far it goes off that. It is nil for
// one that is to be made anew.
func (b *builder) again(l *layer) *layer {
	if !b.looks || !l.leavesPage() {
		return l
	}
	if len(l.children) > 0 || len(l.becomes) > 0 {
		return nil // what is inside it, or is made of it, names it
	}
	n := *l
	n.track, n.drawings = l.track.LeavingAnew(), nil
	return &n
}

func (b *builder) layers(docs []*doc.Layer, parent *layer) []*layer {
	f, s := b.f, b.s
	out := make([]*layer, 0, len(docs))
	for _, d := range docs {
		var same *layer
		if b.was != nil {
			same = b.was.byID[d.ID]
		}
		if b.sameTimes && same != nil && same.doc == d && same.parent == parent && same.settled() {
			if l := b.again(same); l != nil {
				b.keep(l)
				out = append(out, l)
				continue
			}
		}
		l := &layer{doc: d, parent: parent}
		for _, m := range d.Moves {
			s.continues = s.continues || m.Continues != ""
		}
		if same != nil && same.doc == d {
			l.outlines = same.outlines
		} else {
			f.compileShape(s, l)
		}
		if d.Kind == doc.Group {
			l.children = b.layers(d.Children, l)
			l.box = l.groupBox()
		}
		l.reaches = f.paintedBox(l)
		x := l.extent()
		x.Drives = drives(s.doc, d)
		l.track = motion.NewTrack(d, s.timing, x, s.lasting[d.Thread])
		l.pivot = l.box.Centre()
		if v := d.Place.Pivot; v != nil {
			l.pivot = geom.Point{X: v[0], Y: v[1]}
		}
		l.rest = l.at(motion.Rest)
		f.compileChanges(s, l)
		l.edge = f.edge(l)
		s.byID[d.ID], s.byThread[d.Thread] = l, l
		out = append(out, l)
	}
	return out
}

func (f *Film) compileShape(s *scene, l *layer) {
	d := l.doc
	l.box = geom.BoxAt(geom.Point{}, d.Place.W, d.Place.H)
	k := kinds[d.Kind]
	if k.compile != nil {
		k.compile(f, s, l)
	}
	if k.inked {
		f.compileEffects(s, l)
		return
	}
	fill := f.paintOf(d.Fill, s.doc, l.box)
	for i := range l.shapes {
		l.shapes[i].paint = fill.Shaded(l.shapes[i].shade).Fainter(l.shapes[i].faint)
	}
	l.shapes = f.stroked(l.shapes, d.Stroke, s.doc, l.box)
	f.compileEffects(s, l)
}

func (f *Film) compilePath(_ *scene, l *layer) {
	key := f.Geometry.key("p"+l.doc.Path, func() *geom.Path {
		p, err := geom.ParseData(l.doc.Path)
		if err != nil {
			p = &geom.Path{} // validation has refused it
		}
		return p
	})
	l.path = f.Geometry.Path(key)
	if b := f.Geometry.Bounds(key); b.Max.X >= b.Min.X {
		l.box = b
	}
	l.shapes = []shape{{key: key}}
}

func (f *Film) compileText(s *scene, l *layer) {
	d := l.doc
	lay, content := f.layout(d, motion.Finest(d))
	l.box, l.lines, l.scale, l.over = lay.Box, lay.Lines, lay.Scale, lay.Over
	fill := f.paintOf(d.Fill, s.doc, l.box)
	set := func(name string, list []text.Outline) (out []shape) {
		for i, o := range list {
			p := fill
			if o.Colour != "" {
				p = f.paintOf(doc.Fill{Kind: doc.Solid, Colour: o.Colour}, s.doc, l.box)
			}
			out = append(out, shape{key: f.Geometry.key(fmt.Sprint(name, i, content), func() *geom.Path { return o.Path }), paint: p})
		}
		return f.stroked(out, d.Stroke, s.doc, l.box)
	}
	if v := d.Text.Plate; v != nil {
		key := f.Geometry.key(fmt.Sprint("b", v.Padding, v.Corner, v.Whole, content), func() *geom.Path { return lay.Plate(v) })
		l.plate = &shape{key: key, paint: Paint{Colour: state.Colour(v.Colour, v.Role, v.Tone, s.doc)}}
	}
	l.shapes = set("t", lay.Outlines)
	for i, p := range lay.Pieces {
		u := motion.Unit{Line: p.Line, Word: p.Word, Letter: p.Letter}
		l.pieces = append(l.pieces, piece{u, p.Box, set(fmt.Sprint("u", i, "/"), p.Outlines), p.Box, 0})
	}
	for i := range l.pieces {
		p := &l.pieces[i]
		for k := range p.shapes {
			if v := f.Geometry.Bounds(p.shapes[k].key); !v.Empty() {
				p.reaches = p.reaches.Union(v)
			}
		}
	}
	f.divide(l)
}

// layout sets a text, cut into units where moves want it, or finds it set before with the same content and width.
func (f *Film) layout(d *doc.Layer, unit string) (*text.Layout, string) {
	b, err := doc.Encode(d.Text)
	if err != nil {
		b = []byte(err.Error()) // a Text always encodes
	}
	content := string(b) + unit
	if d.Text.Wrap {
		content += fmt.Sprint(d.Place.W, " ", d.Place.H)
	}
	lay := f.layouts[content]
	if lay == nil {
		lay = text.SetIn(f.assets.Fonts, d.Text, text.RoomOf(&d.Place), unit)
		f.layouts[content] = lay
	}
	return lay, content
}

// Spans are the words of a text layer as they are set, and its outlines by their colours, in the order in which they are painted; see text.SpansOf.
func (f *Film) Spans(d *doc.Layer) (spans []text.Span, outlines []text.Outline, ok bool) {
	if spans, ok = text.SpansOf(f.assets.Fonts, d.Text, text.RoomOf(&d.Place)); ok {
		outlines = text.Set(f.assets.Fonts, d.Text, text.RoomOf(&d.Place)).Outlines
	}
	return spans, outlines, ok
}

// state is the layer under a pose.
func (l *layer) state(p *motion.Pose) state.State { return state.Rest(l.doc, l.box, l.pivot).With(p) }

// at returns the map from the layer's axes to its parent's under a pose.
func (l *layer) at(p motion.Pose) geom.Matrix {
	s := l.state(&p)
	return s.Matrix()
}

// Timing returns the resolved moves of scene i.
func (f *Film) Timing(i int) *motion.Timing { return f.scenes[i].timing }

// Frames returns the number of frames of the whole film at its own rate.
func (f *Film) Frames() int64 {
	r := f.Doc.Film.Rate
	return motion.Frames(f.Order.Length, r.Num, r.Den)
}
