package gallery

import (
	"cmp"
	"slices"
	"strings"
	"unicode/utf8"

	"capstan/core/doc"
)

// mostSought is how many letters of what is sought are looked at.
const mostSought = 60

// hints are words that say which kind of move is meant, and what they do it for.
var hints = map[string]string{
	"in": doc.Entrance, "enter": doc.Entrance, "enters": doc.Entrance, "entrance": doc.Entrance, "come": doc.Entrance, "comes": doc.Entrance,
	"out": doc.Exit, "away": doc.Exit, "off": doc.Exit, "exit": doc.Exit, "leave": doc.Exit, "leaves": doc.Exit, "gone": doc.Exit, "goes": doc.Exit,
	"loop": doc.Loop, "forever": doc.Loop, "always": doc.Loop, "keeps": doc.Loop,
}

// idle words say nothing.
var idle = []string{"a", "an", "the", "by", "to", "and", "it", "on", "of", "from", "like", "my"}

// View is what the gallery offers; where something is sought, what that fits, the best of each row first.
func (g *Gallery) View(sought string) View {
	v := g.view
	v.First = -1
	list := words(sought)
	if len(list) == 0 {
		return v
	}
	v.Rows = nil
	most := 0.0
	for _, r := range g.view.Rows {
		cards, best := g.fitting(r.Cards, list)
		if len(cards) == 0 {
			continue
		}
		if best > most {
			most, v.First = best, cards[0].At
		}
		v.Rows = append(v.Rows, Row{Heading: r.Heading, Cards: cards})
	}
	return v
}

// Best are the cards that fit what is sought, the best first.
func (g *Gallery) Best(sought string) []Card {
	var all []Card
	for _, f := range g.films {
		all = append(all, f.card)
	}
	out, _ := g.fitting(all, words(sought))
	return out
}

// fitting returns the cards that fit, the best first, and how well that one does.
func (g *Gallery) fitting(cards []Card, list []string) (out []Card, best float64) {
	fits := map[int]float64{}
	for _, c := range cards {
		if n := g.fits(c, list); n > 0 {
			fits[c.At], best = n, max(best, n)
			out = append(out, c)
		}
	}
	slices.SortStableFunc(out, func(a, b Card) int { return cmp.Compare(fits[b.At], fits[a.At]) })
	return
}

func words(s string) (list []string) {
	if utf8.RuneCountInString(s) > mostSought {
		s = string([]rune(s)[:mostSought])
	}
	for _, w := range strings.FieldsFunc(strings.ToLower(s), func(r rune) bool { return strings.ContainsRune(" \t\n\r,.;:!?()/", r) }) {
		if !slices.Contains(idle, w) || len(s) < 4 {
			list = append(list, w)
		}
	}
	return
}

// fits is how well a card fits the words; 0: not at all. Each word counts by the term it fits best: what it is called before what it is looked for by,
// and of that what is said first.
func (g *Gallery) fits(c Card, list []string) (sum float64) {
	hint := 0.0
	for _, w := range list {
		if hints[w] == c.Kind {
			hint += 1.5
		}
		best := 0.0
		for _, t := range words(c.Name + " " + c.Words) {
			if _, says := hints[t]; !says {
				best = max(best, 1.25*alike(w, t))
			}
		}
		for i, t := range strings.Fields(g.films[c.At].finds) {
			best = max(best, alike(w, t)-0.02*float64(i))
		}
		sum += best
	}
	if sum == 0 {
		return 0
	}
	return sum + hint
}

// alike is how much a word that is sought is like a term: the same, a form of it, the begin of it, or one letter off.
func alike(w, t string) float64 {
	switch {
	case w == t:
		return 10
	case stem(w) == stem(t):
		return 9
	case len(w) >= 2 && strings.HasPrefix(t, w):
		return 7
	case len(w) >= 4 && oneOff(w, t):
		return 5
	case len(w) >= 5 && oneOff(stem(w), stem(t)):
		return 4
	}
	return 0
}

// stem is a word without what it is bent by: spins, spinning and spun are not all the same, but spin, spins and spinning are.
func stem(w string) string {
	for _, end := range []string{"ingly", "ing", "ies", "es", "ed", "er", "s", "y", "e"} {
		if s, ok := strings.CutSuffix(w, end); ok && len(s) >= 3 {
			if n := len(s); n > 3 && s[n-1] == s[n-2] && !strings.ContainsRune("lse", rune(s[n-1])) {
				s = s[:n-1] // spinn
			}
			return s
		}
	}
	return w
}

// oneOff reports whether two words differ by one letter: another, one more, one less, or two that are swapped (Damerau 1964).
func oneOff(a, b string) bool {
	x, y := []rune(a), []rune(b)
	if len(x) > len(y) {
		x, y = y, x
	}
	if len(y)-len(x) > 1 || len(x) < 3 {
		return false
	}
	i := 0
	for i < len(x) && x[i] == y[i] {
		i++
	}
	if len(x) < len(y) {
		return slices.Equal(x[i:], y[i+1:])
	}
	if i == len(x) {
		return true
	}
	return slices.Equal(x[i+1:], y[i+1:]) || i+1 < len(x) && x[i] == y[i+1] && x[i+1] == y[i] && slices.Equal(x[i+2:], y[i+2:])
}
