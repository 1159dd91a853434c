package sound

import (
	"fmt"
	"slices"
	"strings"

	"capstan/core/doc"
)

// Captions are the lines of the voices that are heard, on film time, in their order. Where two would be shown at once the first ends as the second begins.
func (s *Score) Captions() (list []doc.Caption) {
	for _, p := range s.Parts {
		q := p.Sound
		if q.Spoken == nil || q.Muted {
			continue
		}
		begin, end := p.Begin*1000/Rate, p.End*1000/Rate
		for _, l := range q.Spoken.Lines {
			at := func(ms int64) int64 { return begin + int64(float64(ms-q.From)/q.Rate()+0.5) }
			c := doc.Caption{From: max(begin, at(l.From)), To: min(end, at(l.To)), Text: strings.TrimSpace(l.Text)}
			if l.To > q.From && c.From < c.To && c.Text != "" {
				list = append(list, c)
			}
		}
	}
	slices.SortStableFunc(list, func(a, b doc.Caption) int { return int(a.From - b.From) })
	for i := range list[:max(0, len(list)-1)] {
		list[i].To = max(list[i].From, min(list[i].To, list[i+1].From))
	}
	return slices.DeleteFunc(list, func(c doc.Caption) bool { return c.From == c.To })
}

// Between are captions of a part of a film, on the time of that.
func Between(list []doc.Caption, from, to int64) (out []doc.Caption) {
	for _, c := range list {
		c.From, c.To = max(c.From, from)-from, min(c.To, to)-from
		if c.From < c.To {
			out = append(out, c)
		}
	}
	return out
}

// clock writes a time as hours, minutes, seconds and thousandths.
func clock(ms int64, point string) string {
	return fmt.Sprintf("%02d:%02d:%02d%s%03d", ms/3600000, ms/60000%60, ms/1000%60, point, ms%1000)
}

// SRT writes captions as SubRip has them.
func SRT(list []doc.Caption) string {
	var b strings.Builder
	for i, c := range list {
		fmt.Fprintf(&b, "%d\n%s --> %s\n%s\n\n", i+1, clock(c.From, ","), clock(c.To, ","), line(c.Text))
	}
	return b.String()
}

// VTT writes captions as WebVTT has them (W3C).
func VTT(list []doc.Caption) string {
	var b strings.Builder
	b.WriteString("WEBVTT\n\n")
	escape := strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;")
	for _, c := range list {
		fmt.Fprintf(&b, "%s --> %s\n%s\n\n", clock(c.From, "."), clock(c.To, "."), escape.Replace(line(c.Text)))
	}
	return b.String()
}

// line is a text without empty lines, which would end it, and without arrows, which would be times.
func line(text string) string {
	var out []string
	for _, l := range strings.FieldsFunc(text, func(r rune) bool { return r == '\n' || r == '\r' }) {
		if l = strings.TrimSpace(strings.ReplaceAll(l, "-->", "→")); l != "" {
			out = append(out, l)
		}
	}
	return strings.Join(out, "\n")
}
