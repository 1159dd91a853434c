package sound

import (
	"fmt"
	"strings"

	"capstan/core/doc"
)

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
