package sounds

import (
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// Of a caption that is begun: its words, and how long it is shown, in ms.
const (
	newWords = "New caption"
	newShown = 2000
)

// CaptionOf is one of a scene's captions, by its place among them.
type CaptionOf struct {
	Scene string `json:"scene"`
	Index int    `json:"index"`
}

func (c CaptionOf) find(s *intent.Desk) (*doc.Scene, int, error) {
	i, sc := s.Doc.Scene(c.Scene)
	if sc == nil || c.Index < 0 || c.Index >= len(sc.Captions) {
		return nil, 0, words.New("caption.gone")
	}
	return sc, i, nil
}

// CaptionAsked is what is asked about captions, by name.
var CaptionAsked = intent.Table{
	// A caption begins at the playhead; within one it begins as that ends.
	"caption.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Text string `json:"text"` // empty: some that say what it is
	}) (edit.Command, error) {
		i := s.SceneIndex(m)
		sc := s.Doc.Film.Scenes[i]
		at := int64(0)
		if !m.Rest && !sc.Aside {
			at = max(-s.Film.Order.Into[i], int64(m.Time)-s.Film.Order.Begin(i))
		}
		k := 0
		for ; k < len(sc.Captions) && sc.Captions[k].From <= at; k++ {
			at = max(at, sc.Captions[k].To)
		}
		n := doc.Caption{From: at, To: at + newShown, Text: strings.TrimSpace(c.Text)}
		if n.Text == "" {
			n.Text = newWords
		}
		if k < len(sc.Captions) {
			n.To = min(n.To, sc.Captions[k].From)
		}
		if n.To-n.From < doc.MinDuration {
			return nil, words.New("caption.room")
		}
		return captioned(sc, slices.Insert(slices.Clone(sc.Captions), k, n)), nil
	}),
	"caption.say": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		CaptionOf
		Text string `json:"text"`
	}) (edit.Command, error) {
		sc, _, err := c.find(s)
		if err != nil {
			return nil, err
		}
		if strings.TrimSpace(c.Text) == "" {
			return nil, words.New("caption.empty")
		}
		list := slices.Clone(sc.Captions)
		list[c.Index].Text = strings.TrimSpace(c.Text)
		return captioned(sc, list), nil
	}),
	// A caption, or one end of it, is moved as far as those before and after it let it.
	"caption.move": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		CaptionOf
		Part string `json:"part"` // begin, end, or both: whole
		By   int64  `json:"by"`   // ms
	}) (edit.Command, error) {
		sc, i, err := c.find(s)
		if err != nil {
			return nil, err
		}
		list, k := slices.Clone(sc.Captions), c.Index
		least, most := int64(-doc.MaxTime), int64(doc.MaxSoundTime)
		if !sc.Aside {
			least = -s.Film.Order.Into[i]
		}
		if k > 0 {
			least = list[k-1].To
		}
		if k+1 < len(list) {
			most = list[k+1].From
		}
		v := &list[k]
		switch c.Part {
		case "begin":
			v.From = min(max(v.From+c.By, least), v.To-doc.MinDuration)
		case "end":
			v.To = max(min(v.To+c.By, most), v.From+doc.MinDuration)
		default:
			by := max(min(c.By, most-v.To), least-v.From)
			v.From, v.To = v.From+by, v.To+by
		}
		if slices.Equal(list, sc.Captions) {
			return nil, nil
		}
		return captioned(sc, list), nil
	}),
	"caption.delete": intent.Of(func(s *intent.Desk, _ scope.Moment, c *CaptionOf) (edit.Command, error) {
		sc, _, err := c.find(s)
		if err != nil {
			return nil, err
		}
		return captioned(sc, slices.Delete(slices.Clone(sc.Captions), c.Index, c.Index+1)), nil
	}),
	// Captions on film time stand in the place of those that scenes have: each goes with the scene in which it begins, and what begins after the film with the last.
	"caption.read": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Lines []doc.Caption `json:"lines"`
	}) (edit.Command, error) {
		shown := s.Doc.Film.Shown()
		lists := make([][]doc.Caption, len(shown))
		for _, v := range edit.Apart(c.Lines) {
			i := s.Film.Order.At(scope.Instant(math.Min(float64(v.From), float64(s.Film.Order.Length-1)))).Scene
			at := s.Film.Order.Begin(i)
			v.From, v.To = v.From-at, v.To-at
			lists[i] = append(lists[i], v)
		}
		var all []edit.Command
		for i, sc := range shown {
			if len(lists[i]) > doc.MaxCaptions {
				return nil, words.New("caption.many", doc.MaxCaptions)
			}
			if !slices.Equal(sc.Captions, lists[i]) {
				all = append(all, captioned(sc, lists[i]))
			}
		}
		if len(all) == 0 {
			return nil, nil
		}
		return edit.All(all...), nil
	}),
}

// captioned gives a scene its captions.
func captioned(sc *doc.Scene, list []doc.Caption) edit.Command {
	var to any = list
	if len(list) == 0 {
		to = nil
	}
	return &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"captions": to}}
}
