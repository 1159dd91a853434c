package delivery

import (
	"fmt"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/frame"
)

// longestLine is how many characters a description that is proposed has at most.
const longestLine = 240

// Describe is a line for people who do not see a film, made of the words in it: scene by scene, as they lie in each from the back to the front, each
// once; empty where there are none. plan says which part of it.
func (p Plan) Describe(f *frame.Film) string {
	said := map[string]bool{}
	var scenes []string
	to := p.From + p.length(f)
	for i, s := range f.Doc.Film.Shown() {
		begin := f.Order.Starts[i]
		end := begin + f.Order.Into[i] + f.Order.Stays[i]
		if p.Scene > 0 && p.Scene != i+1 || p.Scene == 0 && (end <= p.From || begin > to || begin == to && to > p.From) {
			continue
		}
		var words []string
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			if l.Hidden || l.Made != nil && l.Kind == doc.Group {
				return !l.Hidden
			}
			if l.Text != nil {
				line := strings.Join(strings.Fields(l.Text.String()), " ")
				if line != "" && !said[line] {
					said[line] = true
					words = append(words, line)
				}
			}
			return true
		})
		if len(words) > 0 {
			scenes = append(scenes, strings.Join(words, ", "))
		}
	}
	line := []rune(strings.Join(scenes, "; "))
	if len(line) <= longestLine {
		return string(line)
	}
	cut := longestLine - 1
	if i := slices.Index(reversed(line[:cut]), ' '); i >= 0 {
		cut -= i + 1
	}
	return strings.TrimRight(string(line[:cut]), " ,;") + "…"
}

func reversed(list []rune) []rune {
	list = slices.Clone(list)
	slices.Reverse(list)
	return list
}

// Markup is HTML that shows a file of a name in a web page: of its size, and described. Nothing of it moves by itself for people who ask for little
// motion: video waits until it is started, with a still of its name in its place, and of what goes round that still is shown to them; web pages stand still by themselves. Empty for files
// that browsers do not show.
func (p Plan) Markup(f *frame.Film, name string) string {
	format := Formats[p.Format]
	says := p.Description
	if says == "" {
		says = p.Describe(f)
	}
	file, still := escaped(name), escaped(Still(name))
	size, alt := fmt.Sprintf(`width="%d" height="%d"`, p.Width, p.Height), escaped(says)
	switch {
	case format.Plays == "video":
		return fmt.Sprintf("<video src=\"%s\" %s poster=\"%s\" controls muted loop playsinline preload=\"metadata\" aria-label=\"%s\"></video>\n", file, size, still, alt)
	case format.Plays == "page":
		return fmt.Sprintf("<iframe src=\"%s\" %s title=\"%s\" style=\"border:0\" loading=\"lazy\"></iframe>\n", file, size, alt)
	case format.Plays == "picture" && format.Rests:
		return fmt.Sprintf("<picture>\n  <source srcset=\"%s\" media=\"(prefers-reduced-motion: reduce)\">\n  <img src=\"%s\" %s alt=\"%s\">\n</picture>\n", still, file, size, alt)
	case format.Plays == "picture":
		return fmt.Sprintf("<img src=\"%s\" %s alt=\"%s\">\n", file, size, alt)
	}
	return ""
}

// escaped is a text as the value of an attribute.
func escaped(s string) string {
	return strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;", `"`, "&#34;").Replace(s)
}

// Still is the name of the still that stands for a file of a name.
func Still(name string) string {
	if i := strings.LastIndexByte(name, '.'); i > 0 {
		name = name[:i]
	}
	return name + ".png"
}
