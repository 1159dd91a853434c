// Package sounds is what is asked about sounds: bringing them in, moving, trimming and fading them, and what they are bound to.
package sounds

import (
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// longFrom is from how many ms on a sound goes with the film at first.
const longFrom = 10_000

// musicOut is how long music fades out at first, in ms.
const musicOut = 1500

// Of a sound that goes along with a move: the share of it that it fades out over, and the longest that takes, in ms.
const (
	fadesOver = 0.3
	fadesMost = 1500
)

// Asked is all of it, by name.
var Asked = intent.Table{
	// A recording is heard: a long one with the film, as music; a short one with the scene, from the playhead on.
	"sound.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Hash  string     `json:"hash"`
		Media *doc.Media `json:"media"`
		Use   string     `json:"use"`  // music, effect or voice; empty: by how long it is
		Move  string     `json:"move"` // the move that it is bound to; empty: none
	}) (edit.Command, error) {
		return added(s, m, c.Hash, c.Media, c.Use, c.Move)
	}),
	// A voice is made of a text, and heard from the playhead on; in the place of one that is there, it is heard when that was.
	"sound.speak": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Hash   string      `json:"hash"`
		Media  *doc.Media  `json:"media"`
		Spoken *doc.Spoken `json:"spoken"`
		ID     string      `json:"id"` // of the sound in whose place it is; empty: a new one
	}) (edit.Command, error) {
		return spoken(s, m, c.Hash, c.Media, c.Spoken, c.ID)
	}),
	// Another recording is heard in a sound's place.
	"sound.replace": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID    string     `json:"id"`
		Hash  string     `json:"hash"`
		Media *doc.Media `json:"media"`
	}) (edit.Command, error) {
		q, _ := s.Doc.Film.Sound(c.ID)
		if q == nil {
			return nil, words.New("sound.gone")
		}
		patch := edit.Fields{"media": c.Hash}
		if q.Spoken != nil {
			patch["spoken"] = nil
		}
		if at, rest := q.From, lasts(c.Media); at >= rest {
			patch["from"] = int64(0)
		}
		return edit.All(&edit.AddMedia{Hash: c.Hash, Media: c.Media}, &edit.SetSound{ID: c.ID, Patch: patch}), nil
	}),
	// Sounds begin so many ms later; one of a scene that goes over into the stay of another is on the clock of that then.
	"sound.move": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs []string `json:"ids"`
		By  int64    `json:"by"`
	}) (edit.Command, error) {
		return each(s, c.IDs, func(q *doc.Sound, sc *doc.Scene) edit.Command { return later(s, q, sc, c.By) })
	}),
	// One end of a sound is moved; what it is heard of stays where it is.
	"sound.trim": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID   string `json:"id"`
		Part string `json:"part"` // begin or end
		By   int64  `json:"by"`   // ms
	}) (edit.Command, error) {
		return each(s, []string{c.ID}, func(q *doc.Sound, sc *doc.Scene) edit.Command {
			if c.Part == "begin" {
				return cutBegin(s, q, sc, c.By)
			}
			return cutEnd(s, q, sc, c.By)
		})
	}),
	// Fields of sounds are set.
	"sound.set": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs   []string    `json:"ids"`
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		return each(s, c.IDs, func(q *doc.Sound, _ *doc.Scene) edit.Command { return &edit.SetSound{ID: q.ID, Patch: c.Patch} })
	}),
	// A sound goes with the film, with the scene, or with a move; it is heard when it was.
	"sound.bind": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID   string `json:"id"`
		To   string `json:"to"` // film, scene or move
		Move string `json:"move"`
	}) (edit.Command, error) {
		return each(s, []string{c.ID}, func(q *doc.Sound, sc *doc.Scene) edit.Command { return bound(s, q, sc, c.To, c.Move) })
	}),
	"sound.delete": intent.Of(func(_ *intent.Desk, _ scope.Moment, c *struct {
		IDs []string `json:"ids"`
	}) (edit.Command, error) {
		if len(c.IDs) == 0 {
			return nil, nil
		}
		return &edit.DeleteSounds{IDs: c.IDs}, nil
	}),
	// What voices say is drawn in the film, or no longer.
	"sound.captions": intent.Of(func(_ *intent.Desk, _ scope.Moment, c *struct {
		Shown bool        `json:"shown"`
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		if !c.Shown {
			return &edit.SetFilm{Patch: edit.Fields{"captions": nil}}, nil
		}
		if c.Patch == nil {
			c.Patch = edit.Fields{}
		}
		return &edit.SetFilm{Patch: edit.Fields{"captions": c.Patch}}, nil
	}),
	// How all sounds go together.
	"sound.mix": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		m := s.Doc.Film.Mixed()
		if err := c.Patch.Change(&m); err != nil {
			return nil, err
		}
		return &edit.SetFilm{Patch: edit.Fields{"mix": edit.Fields{"back": m.Back, "down": m.Down, "up": m.Up, "loudness": m.Loudness}}}, nil
	}),
}

// each is what becomes of some sounds, together.
func each(s *intent.Desk, ids []string, do func(q *doc.Sound, sc *doc.Scene) edit.Command) (edit.Command, error) {
	var list []edit.Command
	for _, id := range ids {
		q, sc := s.Doc.Film.Sound(id)
		if q == nil {
			return nil, words.New("sound.gone")
		}
		if c := do(q, sc); c != nil {
			list = append(list, c)
		}
	}
	if len(list) == 0 {
		return nil, nil
	}
	return edit.All(list...), nil
}

// lasts is how long a recording is, in ms.
func lasts(m *doc.Media) int64 { return m.Samples * 1000 / doc.SampleRate }

func added(s *intent.Desk, m scope.Moment, hash string, media *doc.Media, use, move string) (edit.Command, error) {
	if media == nil || !media.IsSound() {
		return nil, words.New("sound.none")
	}
	long := lasts(media) > longFrom
	q := &doc.Sound{ID: s.NewID(), Name: named(media.Name), Media: hash, Use: use, Start: doc.Start{When: doc.AtTime}, Length: max(doc.MinDuration, lasts(media))}
	if q.Use == "" {
		if q.Use = doc.Noise; long {
			q.Use = doc.Music
		}
	}
	add := &edit.AddSounds{Sounds: []*doc.Sound{q}}
	known := &edit.AddMedia{Hash: hash, Media: media}
	i := s.SceneIndex(m)
	switch sc := s.Doc.Film.Scenes[i]; {
	case move != "":
		v, _, k := s.Move(move)
		if v == nil {
			return nil, words.New("move.gone")
		}
		add.Scene = s.Doc.Film.Scenes[k].ID
		follow(s, q, v, k)
	case long || sc.Aside:
		if !m.Rest {
			q.Start.Offset = int64(m.Time)
		}
	default:
		add.Scene = sc.ID
		if !m.Rest {
			q.Start.Offset = max(0, int64(m.Time)-s.Film.Order.Begin(i))
		}
	}
	if q.Use == doc.Music {
		q.FadeOut = min(musicOut, q.Length)
	}
	return edit.All(known, add), nil
}

// named is the name of a sound by that of its file.
func named(file string) string {
	for i := len(file) - 1; i > 0; i-- {
		if file[i] == '.' {
			return file[:i]
		}
	}
	return file
}

// follow binds a sound to a move: it begins and ends with it, fades as it ends, and pans along with what it moves along a line.
func follow(s *intent.Desk, q *doc.Sound, m *doc.Move, scene int) {
	q.Start = doc.Start{When: doc.WhenBegins, Of: m.ID}
	q.End = &doc.Anchor{When: doc.WhenEnds, Of: m.ID, Stretches: true}
	if m.Lasts != "" {
		q.End = &doc.Anchor{When: doc.BeforeSceneEnd, Stretches: true}
	}
	iv := s.Film.Timing(scene).Moves[m.ID]
	long := max(iv.End-iv.Begin, 0)
	q.FadeOut = int64(math.Round(min(fadesMost, fadesOver*float64(long))))
	if media := s.Doc.Media[q.Media]; media != nil {
		q.Loops = q.Loops || lasts(media)-q.From < long
	}
	q.Along = m.Drifts()
}

// heard is when a sound is heard, on its own clock, in ms.
func heard(s *intent.Desk, q *doc.Sound, sc *doc.Scene) (begin, end int64) {
	if sc == nil {
		return q.Start.Offset, q.Start.Offset + q.Length
	}
	i, _ := s.Doc.Scene(sc.ID)
	t := s.Film.Timing(i).Sounds[q.ID]
	return t.Begin, t.End
}

// later is a sound that begins so many ms later.
func later(s *intent.Desk, q *doc.Sound, sc *doc.Scene, by int64) edit.Command {
	if by == 0 {
		return nil
	}
	begin, _ := heard(s, q, sc)
	if sc == nil {
		return &edit.SetSound{ID: q.ID, Patch: edit.Fields{"start": doc.Start{When: doc.AtTime, Offset: max(0, begin+by)}}}
	}
	start := q.Start
	if start.When == doc.BeforeSceneEnd {
		start.Offset -= by
		return &edit.SetSound{ID: q.ID, Patch: edit.Fields{"start": start}}
	}
	i, _ := s.Doc.Scene(sc.ID)
	o := s.Film.Order
	at := o.Begin(i) + begin + by // of the film
	if w := o.At(scope.Instant(float64(max(at, 0)))); start.When == doc.AtTime && q.End == nil && w.Scene != i && !w.Into && !sc.Aside {
		to := s.Doc.Film.Scenes[w.Scene].ID
		return &edit.SetSound{ID: q.ID, Scene: &to, Patch: edit.Fields{"start": doc.Start{When: doc.AtTime, Offset: max(at, 0) - o.Begin(w.Scene)}}}
	}
	start.Offset += max(by, -o.Into[i]-begin)
	return &edit.SetSound{ID: q.ID, Patch: edit.Fields{"start": start}}
}

// cutBegin moves the begin of a sound; its end stays.
func cutBegin(s *intent.Desk, q *doc.Sound, sc *doc.Scene, by int64) edit.Command {
	begin, end := heard(s, q, sc)
	least := -int64(float64(q.From) / q.Rate()) // nothing is before a recording's begin
	if q.Loops {
		least = math.MinInt64 / 2
	}
	if sc == nil {
		least = max(least, -begin)
	} else {
		i, _ := s.Doc.Scene(sc.ID)
		least = max(least, -s.Film.Order.Into[i]-begin)
	}
	by = min(max(by, least), end-begin-doc.MinDuration)
	if by == 0 {
		return nil
	}
	start := q.Start
	if start.When == doc.BeforeSceneEnd {
		start.Offset -= by
	} else {
		start.Offset += by
	}
	patch := edit.Fields{"start": start, "from": max(0, q.From+int64(math.Round(float64(by)*q.Rate())))}
	if q.End == nil {
		patch["length"] = end - begin - by
	}
	return &edit.SetSound{ID: q.ID, Patch: patch}
}

// cutEnd moves the end of a sound; where it hung on something, it does no longer.
func cutEnd(s *intent.Desk, q *doc.Sound, sc *doc.Scene, by int64) edit.Command {
	begin, end := heard(s, q, sc)
	most := int64(doc.MaxSoundTime)
	if m := s.Doc.Media[q.Media]; m != nil && !q.Loops {
		most = int64(float64(lasts(m)-q.From) / q.Rate())
	}
	length := min(max(end-begin+by, doc.MinDuration), max(most, doc.MinDuration))
	patch := edit.Fields{"length": length}
	if q.End != nil {
		patch["end"] = nil
	}
	return &edit.SetSound{ID: q.ID, Patch: patch}
}

// bound binds a sound to the film, a scene or a move.
func bound(s *intent.Desk, q *doc.Sound, sc *doc.Scene, to, move string) edit.Command {
	begin, end := heard(s, q, sc)
	if sc != nil {
		i, _ := s.Doc.Scene(sc.ID)
		begin, end = begin+s.Film.Order.Begin(i), end+s.Film.Order.Begin(i)
	}
	begin = max(begin, 0)
	free := edit.Fields{"end": nil, "length": max(doc.MinDuration, end-begin), "along": false}
	if q.End == nil {
		delete(free, "end")
	}
	at := func(ms int64) doc.Start { return doc.Start{When: doc.AtTime, Offset: ms} }
	switch to {
	case "film":
		free["start"] = at(begin)
		return &edit.SetSound{ID: q.ID, Scene: new(string), Patch: free}
	case "move":
		m, _, i := s.Move(move)
		if m == nil {
			return nil
		}
		n := q.Clone()
		follow(s, n, m, i)
		scene := s.Doc.Film.Scenes[i].ID
		return &edit.SetSound{ID: q.ID, Scene: &scene, Patch: edit.Fields{"start": n.Start, "end": n.End, "fadeOut": n.FadeOut, "loops": n.Loops, "along": n.Along}}
	}
	i := s.Film.Order.At(scope.Instant(float64(begin))).Scene
	free["start"] = at(begin - s.Film.Order.Begin(i))
	scene := s.Doc.Film.Scenes[i].ID
	return &edit.SetSound{ID: q.ID, Scene: &scene, Patch: free}
}

// spoken is a voice that was made of a text.
func spoken(s *intent.Desk, m scope.Moment, hash string, media *doc.Media, of *doc.Spoken, id string) (edit.Command, error) {
	if media == nil || !media.IsSound() || of == nil {
		return nil, words.New("sound.none")
	}
	known := &edit.AddMedia{Hash: hash, Media: media}
	if id != "" {
		q, _ := s.Doc.Film.Sound(id)
		if q == nil {
			return nil, words.New("sound.gone")
		}
		return edit.All(known, &edit.SetSound{ID: id, Patch: edit.Fields{"media": hash, "spoken": of, "from": int64(0), "length": max(doc.MinDuration, lasts(media)), "marks": inOrder(respoken(s, q, of))}}), nil
	}
	i := s.SceneIndex(m)
	sc := s.Doc.Film.Scenes[i]
	q := &doc.Sound{ID: s.NewID(), Name: firstWords(of.Text), Media: hash, Use: doc.Voice, Start: doc.Start{When: doc.AtTime}, Length: max(doc.MinDuration, lasts(media)), Spoken: of}
	if len(of.Words) <= wordsAtOne {
		q.Marks = wordMarks(s, nil, of)
	}
	add := &edit.AddSounds{Scene: sc.ID, Sounds: []*doc.Sound{q}}
	switch {
	case sc.Aside:
		add.Scene = ""
	case !m.Rest:
		q.Start.Offset = max(0, int64(m.Time)-s.Film.Order.Begin(i))
	}
	return edit.All(known, add), nil
}

// firstWords are those of a text, for the name of what it was made into.
func firstWords(text string) string {
	const most = 32
	r := []rune(strings.Join(strings.Fields(text), " "))
	if len(r) <= most {
		return string(r)
	}
	return strings.TrimRight(string(r[:most]), " .,;:") + " …"
}
