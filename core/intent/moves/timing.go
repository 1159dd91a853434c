package moves

import (
	"math"
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

// block is moves that a timing tool treats as one: a single move, those of one layer, or all.
type block struct {
	bars       []bar
	begin, end int64 // ms on the scene's clock
	rank       int   // its place in the order asked for; several may share one
}

// Ways of taking moves together.
const (
	perMove  = "move"
	perLayer = "layer"
	asOne    = "all"
)

// blocks groups bars of one scene, in order of time; ties keep the order of the rows.
func blocks(s *intent.Desk, ids []string, by string) ([]block, error) {
	list, err := bars(s, ids)
	if err != nil {
		return nil, err
	}
	var out []block
	index := map[string]int{}
	for _, b := range list {
		if b.scene != list[0].scene {
			return nil, words.New("moves.apart")
		}
		if b.move.Lasts != "" && b.move.Kind == doc.Loop {
			continue // it has neither a begin nor an end to arrange
		}
		key := map[string]string{perMove: b.move.ID, perLayer: b.layer.ID}[by]
		k, ok := index[key]
		if !ok {
			k = len(out)
			index[key] = k
			out = append(out, block{begin: b.at.Begin, end: b.at.End})
		}
		o := &out[k]
		o.bars = append(o.bars, b)
		o.begin, o.end = min(o.begin, b.at.Begin), max(o.end, b.at.End)
	}
	if len(out) == 0 {
		return nil, words.New("loops.lasting")
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].begin < out[j].begin })
	return out, nil
}

// shift returns the begins of the block's moves when it begins at to.
func (b *block) shift(into map[string]int64, to int64) {
	for _, m := range b.bars {
		into[m.move.ID] = m.at.Begin + to - b.begin
	}
}

// first is the move of the block that begins first, last the one that ends last.
func (b *block) first() bar {
	return slices.MinFunc(b.bars, func(x, y bar) int { return int(x.at.Begin - y.at.Begin) })
}

func (b *block) last() bar {
	return slices.MaxFunc(b.bars, func(x, y bar) int { return int(x.at.End - y.at.End) })
}

var timingAsked = intent.Table{
	"time": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Tool  string   `json:"tool"`
		Moves []string `json:"moves"`
		By    string   `json:"by"`   // move, layer or all
		Step  *int64   `json:"step"` // of a cascade and between moves one after another, ms
		Ms    int64    `json:"ms"`   // the length to stretch to
		sequence
	}) (edit.Command, error) {
		if c.By == "" {
			c.By = perMove
		}
		list, err := blocks(s, c.Moves, c.By)
		if err != nil {
			return nil, err
		}
		tool := timeTools[c.Tool]
		if tool == nil {
			return nil, words.New("moves.tool", c.Tool)
		}
		if err := inSequence(s, list, c.sequence, c.Moves); err != nil {
			return nil, err
		}
		if len(list) < 2 && slices.Contains([]string{"together", "end-together", "one-after-another", "cascade", "spread", "reverse"}, c.Tool) {
			return nil, words.New("moves.few")
		}
		step := int64(150)
		if c.Tool == "one-after-another" {
			step = 0
		}
		if c.Step != nil {
			step = *c.Step
		}
		return tool(s, list, step, c.Ms)
	}),
}

// timeTools are what arranges moves in time. list is in the order asked for.
var timeTools = map[string]func(s *intent.Desk, list []block, step, ms int64) (edit.Command, error){
	"together":     together,
	"end-together": endTogether,
	"one-after-another": func(s *intent.Desk, l []block, step, _ int64) (edit.Command, error) {
		return chain(s, l, doc.WhenEnds, step)
	},
	"cascade": func(s *intent.Desk, l []block, step, _ int64) (edit.Command, error) {
		return chain(s, l, doc.WhenBegins, step)
	},
	"spread":  spread,
	"reverse": reverse,
	"stretch": stretch,
	"fit":     fit,
	"beats":   onBeats,
}

// onBeats puts the blocks, in their order, on beats that follow one another: the first on that which is nearest to its begin.
func onBeats(s *intent.Desk, list []block, _, _ int64) (edit.Command, error) {
	start := s.Film.Order.Begin(list[0].bars[0].scene)
	first := list[0].begin
	for _, b := range list {
		first = min(first, b.begin)
	}
	beats := s.Film.Beats()
	if len(beats) == 0 {
		return nil, words.New("beats.none")
	}
	k := 0
	for i, at := range beats {
		if abs(at-start-first) < abs(beats[k]-start-first) {
			k = i
		}
	}
	begins := map[string]int64{}
	for i := range list {
		if k+list[i].rank >= len(beats) {
			return nil, words.New("beats.few", len(beats)-k)
		}
		list[i].shift(begins, beats[k+list[i].rank]-start)
	}
	return retime(s, begins, nil)
}

func abs(v int64) int64 { return max(v, -v) }

// freed returns the change that gives a block's leading move a time of its own, when it hangs on what is about to hang on it.
func freed(s *intent.Desk, list []block, lead bar) []edit.Part {
	var others []string
	for _, b := range list {
		for _, m := range b.bars {
			if m.move.ID != lead.move.ID {
				others = append(others, m.move.ID)
			}
		}
	}
	if !followers(s.Doc.Film.Scenes[lead.scene], others)[lead.move.ID] {
		return nil
	}
	return []edit.Part{{ID: lead.move.ID, Patch: edit.Fields{
		"start": doc.Start{When: doc.AtTime, Offset: lead.at.Begin}, "end": nil,
	}}}
}

// together hangs the begin of every block on that of the first.
func together(s *intent.Desk, list []block, _, _ int64) (edit.Command, error) {
	lead := list[0].first()
	set := freed(s, list, lead)
	for _, b := range list[1:] {
		m := b.first()
		set = append(set, edit.Part{ID: m.move.ID, Patch: edit.Fields{
			"start": doc.Start{When: doc.WhenBegins, Of: lead.move.ID}, "end": nil,
		}})
	}
	return following(s, list, set, func(b *block) int64 { return list[0].begin })
}

// endTogether gives every block a live end on that of the block that ends last; its begin follows.
func endTogether(s *intent.Desk, list []block, _, _ int64) (edit.Command, error) {
	lead := slices.MaxFunc(list, func(a, b block) int { return int(a.end - b.end) })
	anchor := lead.last()
	if anchor.move.Lasts != "" {
		return nil, words.New("move.lasting-end", motion.Name(anchor.move))
	}
	set := freed(s, list, anchor)
	for _, b := range list {
		m := b.last()
		if m.move.ID == anchor.move.ID {
			continue
		}
		if m.move.Timeless() {
			set = append(set, edit.Part{ID: m.move.ID, Patch: edit.Fields{"start": doc.Start{When: doc.WhenEnds, Of: anchor.move.ID}}})
			continue
		}
		set = append(set, edit.Part{ID: m.move.ID, Patch: edit.Fields{
			"end": doc.Anchor{When: doc.WhenEnds, Of: anchor.move.ID}, "lasts": nil, "until": nil,
		}})
	}
	return following(s, list, set, func(b *block) int64 { return lead.end - (b.end - b.begin) })
}

// following adds to the changes of each block's leading move those that bring its other moves along.
func following(s *intent.Desk, list []block, set []edit.Part, to func(*block) int64) (edit.Command, error) {
	first := &edit.SetMoves{Set: set}
	others := map[string]int64{}
	for i := range list {
		b := &list[i]
		led := map[string]int64{}
		b.shift(led, to(b))
		for id, at := range led {
			if !slices.ContainsFunc(set, func(v edit.Part) bool { return v.ID == id }) {
				others[id] = at
			}
		}
	}
	return then(s, first, others)
}

// then returns first with the changes after it that make moves begin at times.
func then(s *intent.Desk, first edit.Command, begins map[string]int64) (edit.Command, error) {
	p, err := edit.Preview(s.Doc, first, s.Assets())
	if err != nil {
		return nil, err
	}
	second, err := retimeIn(s, p, begins, nil)
	if err != nil || second == nil {
		return first, err
	}
	return edit.All(first, second), nil
}

// chain makes a run: each block hangs on the one before it, step ms after its end or its begin.
func chain(s *intent.Desk, list []block, when string, step int64) (edit.Command, error) {
	sc := s.Doc.Film.Scenes[list[0].bars[0].scene]
	single := true
	for _, b := range list {
		single = single && len(b.bars) == 1
		if last := b.last(); when == doc.WhenEnds && last.move.Lasts != "" {
			return nil, words.New("move.lasting-after", motion.Name(last.move))
		}
	}
	if single {
		var ids []string
		var gaps []int64
		for i, b := range list {
			ids = append(ids, b.bars[0].move.ID)
			if i > 0 {
				gaps = append(gaps, gap(list, i, when, step))
			}
		}
		run := &edit.MakeRun{Scene: sc.ID, ID: s.NewID(), When: when, Moves: ids, Gaps: gaps}
		lead := list[0].bars[0]
		set := freed(s, list, lead)
		if leaving(list) {
			length := chained(list, gaps, when)
			if stay := s.Film.Timing(lead.scene).Stay; length > stay {
				return nil, words.New("moves.too-long", words.Seconds(length), words.Seconds(stay))
			}
			set = []edit.Part{{ID: lead.move.ID, Patch: edit.Fields{"start": doc.Start{When: doc.BeforeSceneEnd, Offset: length}, "end": nil}}}
		} else if set == nil && lead.move.End != nil {
			// Its end is let go of with those of the others; it stays where it is.
			set = []edit.Part{{ID: lead.move.ID, Patch: edit.Fields{"start": doc.Start{When: doc.AtTime, Offset: lead.at.Begin}, "end": nil}}}
		}
		if set != nil {
			return edit.All(&edit.SetMoves{Set: set}, run), nil
		}
		return run, nil
	}
	// Blocks of several moves: the first move of each hangs on the block before, the others stay with it.
	set := freed(s, list, list[0].first())
	begins := map[string]int64{}
	at := list[0].begin
	for i := range list {
		b := &list[i]
		if i > 0 {
			before := &list[i-1]
			of, length := before.first(), int64(0)
			if when == doc.WhenEnds {
				of, length = before.last(), before.end-before.begin
			}
			between := gap(list, i, when, step)
			at += length + between
			m := b.first()
			set = append(set, edit.Part{ID: m.move.ID, Patch: edit.Fields{
				"start": doc.Start{When: when, Of: of.move.ID, Offset: between}, "end": nil,
			}})
		}
		b.shift(begins, at)
	}
	for _, v := range set {
		delete(begins, v.ID)
	}
	return then(s, &edit.SetMoves{Set: set}, begins)
}

// gap is the time between a block of a chain and the one before it: what is as far in the order begins together.
func gap(list []block, i int, when string, step int64) int64 {
	if when == doc.WhenEnds {
		return step
	}
	return step * int64(list[i].rank-list[i-1].rank)
}

// leaving reports whether all blocks are single exits that hang on the scene's end.
func leaving(list []block) bool {
	for _, b := range list {
		m := b.bars[0].move
		if m.Kind != doc.Exit || m.Start.When != doc.BeforeSceneEnd && (m.End == nil || m.End.When != doc.BeforeSceneEnd) {
			return false
		}
	}
	return true
}

// chained is how long a chain of single moves takes from its first begin to its last end.
func chained(list []block, gaps []int64, when string) int64 {
	at, length := int64(0), int64(0)
	for i, b := range list {
		if i > 0 {
			at += gaps[i-1]
			if when == doc.WhenEnds {
				at += list[i-1].end - list[i-1].begin
			}
		}
		length = max(length, at+b.end-b.begin)
	}
	return length
}

// spread keeps the earliest and the latest begin and puts the blocks, in their order, at equal steps from the one to the other.
func spread(s *intent.Desk, list []block, _, _ int64) (edit.Command, error) {
	begins := map[string]int64{}
	first, last := list[0].begin, list[0].begin
	for _, b := range list {
		first, last = min(first, b.begin), max(last, b.begin)
	}
	steps := list[len(list)-1].rank
	if first == last || steps == 0 {
		return nil, words.New("moves.nospan")
	}
	for i := range list {
		list[i].shift(begins, first+int64(math.Round(float64(last-first)*float64(list[i].rank)/float64(steps))))
	}
	return retime(s, begins, nil)
}

// reverse mirrors the blocks in time: what came first comes last.
func reverse(s *intent.Desk, list []block, _, _ int64) (edit.Command, error) {
	if c := reverseRun(s, list); c != nil {
		return c, nil
	}
	// What comes in and what goes out are reversed each by itself, so that nothing enters when the others leave.
	kinds := map[string][]*block{}
	for i := range list {
		b := &list[i]
		kind := b.bars[0].move.Kind
		for _, m := range b.bars {
			if m.move.Kind != kind {
				kind = ""
			}
		}
		kinds[kind] = append(kinds[kind], b)
	}
	begins := map[string]int64{}
	for _, some := range kinds {
		from, to := some[0].begin, some[0].end
		for _, b := range some {
			from, to = min(from, b.begin), max(to, b.end)
		}
		for _, b := range some {
			b.shift(begins, from+to-b.end)
		}
	}
	return retime(s, begins, nil)
}

// reverseRun turns the order of a whole run about; nil when the blocks are not just that.
func reverseRun(s *intent.Desk, list []block) edit.Command {
	sc := s.Doc.Film.Scenes[list[0].bars[0].scene]
	for _, r := range sc.Runs {
		if len(r.Moves) != len(list) {
			continue
		}
		all := true
		for _, b := range list {
			all = all && len(b.bars) == 1 && slices.Contains(r.Moves, b.bars[0].move.ID)
		}
		if all {
			order := slices.Clone(r.Moves)
			slices.Reverse(order)
			return &edit.OrderRun{Scene: sc.ID, ID: r.ID, Moves: order}
		}
	}
	return nil
}

// scaled returns the changes that make the block last from..to, its moves and the gaps between them in proportion.
func (b *block) scaled(from, to int64, begins map[string]int64, patches map[string]edit.Fields) {
	k := float64(to-from) / float64(max(b.end-b.begin, 1))
	for _, m := range b.bars {
		begins[m.move.ID] = from + int64(math.Round(float64(m.at.Begin-b.begin)*k))
		if m.at.End > m.at.Begin && (m.move.End == nil || !m.move.End.Stretches) {
			patches[m.move.ID] = m.lengthened(int64(math.Round(float64(m.at.End-m.at.Begin) * k)))
		}
	}
}

func stretch(s *intent.Desk, list []block, _, ms int64) (edit.Command, error) {
	if ms < doc.MinDuration {
		return nil, words.New("move.short")
	}
	begins, patches := map[string]int64{}, map[string]edit.Fields{}
	for i := range list {
		list[i].scaled(list[i].begin, list[i].begin+ms, begins, patches)
	}
	return retime(s, begins, patches)
}

// fit scales each block to the whole stay of its scene.
func fit(s *intent.Desk, list []block, _, _ int64) (edit.Command, error) {
	stay := s.Film.Timing(list[0].bars[0].scene).Stay
	begins, patches := map[string]int64{}, map[string]edit.Fields{}
	for i := range list {
		list[i].scaled(0, stay, begins, patches)
	}
	return retime(s, begins, patches)
}
