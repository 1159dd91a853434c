package sound

import (
	"bytes"
	"encoding/binary"
	"strconv"
	"strings"
	"unicode/utf16"
	"unicode/utf8"

	"capstan/core/doc"
	"capstan/core/words"
)

// MostPace is how many characters a second most people read with ease (common practice: 15 to 20 in broadcasting, 17 the rate asked for most).
const MostPace = 17

// Pace is how many characters a second a caption asks to be read.
func Pace(c doc.Caption) float64 {
	return float64(utf8.RuneCountInString(strings.Join(strings.Fields(c.Text), " "))) * 1000 / float64(max(1, c.To-c.From))
}

// Subtitles are captions that were read from a file, in its order.
type Subtitles struct {
	Lines     []doc.Caption `json:"lines"`
	Backwards int           `json:"backwards"` // that end before they begin, or as they do, and were left out
	Cut       int           `json:"cut"`       // that were longer than a caption can be, and were cut
}

// mostSubtitles is how large a file of captions is at most, in bytes.
const mostSubtitles = 4 << 20

// entities are those of WebVTT.
var entities = strings.NewReplacer("&amp;", "&", "&lt;", "<", "&gt;", ">", "&nbsp;", " ", "&lrm;", "", "&rlm;", "", "&quot;", `"`, "&#39;", "'")

// timed reads a line with two times: hours may be missing, there may be a point or a comma before the thousandths, and more behind both.
func timed(line string) (c doc.Caption, ok bool) {
	from, to, ok := strings.Cut(line, "-->")
	if !ok {
		return c, false
	}
	to = strings.TrimSpace(to)
	if i := strings.IndexAny(to, " \t"); i >= 0 {
		to = to[:i]
	}
	var a, b bool
	c.From, a = moment(strings.TrimSpace(from))
	c.To, b = moment(to)
	return c, a && b
}

// moment is a time of hours, minutes, seconds and a fraction, in ms.
func moment(s string) (ms int64, ok bool) {
	whole, part, ok := strings.Cut(strings.Replace(s, ",", ".", 1), ".")
	units := strings.Split(whole, ":")
	if !ok || len(units) < 2 || len(units) > 3 || len(part) == 0 || len(part) > 3 {
		return 0, false
	}
	for _, u := range units {
		n, err := strconv.ParseUint(u, 10, 16)
		if err != nil || len(u) > 3 {
			return 0, false
		}
		ms = ms*60 + int64(n)
	}
	fraction, err := strconv.ParseUint((part + "00")[:3], 10, 16)
	return ms*1000 + int64(fraction), err == nil
}

// plain is a line without what is between words and is not one: tags of both formats, and places in braces.
func plain(line string) string {
	var b strings.Builder
	for line != "" {
		end := -1
		switch {
		case len(line) > 1 && line[0] == '<' && (line[1] == '/' || letter(line[1])):
			end = strings.IndexByte(line, '>')
		case strings.HasPrefix(line, "{\\"):
			end = strings.IndexByte(line, '}')
		}
		if end > 0 && end < 200 && !strings.ContainsRune(line[1:end], rune(line[0])) {
			line = line[end+1:]
			continue
		}
		b.WriteByte(line[0])
		line = line[1:]
	}
	return strings.TrimSpace(entities.Replace(b.String()))
}

func letter(c byte) bool { return c|0x20 >= 'a' && c|0x20 <= 'z' || c >= '0' && c <= '9' }

// ReadSubtitles reads captions as SubRip and WebVTT (W3C) have them, from a file in UTF-8, in UTF-16 that says so, or else in Latin-1. What is not a caption
// (numbers, notes, styles) is passed over. A file without any is a *words.Fault.
func ReadSubtitles(file []byte) (s Subtitles, err error) {
	if len(file) > mostSubtitles {
		return s, words.New("caption.large", mostSubtitles>>20)
	}
	lines := strings.Split(strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(decoded(file)), "\n")
	for i := 0; i < len(lines); i++ {
		c, ok := timed(lines[i])
		if !ok {
			continue
		}
		var text []string
		next := false // it is the times of another
		for i+1 < len(lines) && strings.TrimSpace(lines[i+1]) != "" {
			if _, next = timed(lines[i+1]); next {
				break
			}
			i++
			if t := plain(lines[i]); t != "" {
				text = append(text, t)
			}
		}
		if next && len(text) > 0 && numeral(text[len(text)-1]) {
			text = text[:len(text)-1] // the number of the next, where no empty line is before it
		}
		c.Text = strings.Join(text, "\n")
		switch {
		case c.Text == "":
			continue
		case c.To-c.From < doc.MinDuration || c.To > doc.MaxSoundTime:
			s.Backwards++
			continue
		case utf8.RuneCountInString(c.Text) > doc.MaxCaption:
			c.Text = strings.TrimSpace(string([]rune(c.Text)[:doc.MaxCaption]))
			s.Cut++
		}
		s.Lines = append(s.Lines, c)
	}
	if len(s.Lines) == 0 {
		return s, words.New("caption.none")
	}
	return s, nil
}

func numeral(s string) bool {
	_, err := strconv.ParseUint(s, 10, 32)
	return err == nil
}

// decoded is the text of a file.
func decoded(b []byte) string {
	if b16 := bytes.HasPrefix(b, []byte{0xfe, 0xff}); b16 || bytes.HasPrefix(b, []byte{0xff, 0xfe}) {
		order := binary.ByteOrder(binary.LittleEndian)
		if b16 {
			order = binary.BigEndian
		}
		u := make([]uint16, len(b)/2-1)
		for i := range u {
			u[i] = order.Uint16(b[2+2*i:])
		}
		return string(utf16.Decode(u))
	}
	b = bytes.TrimPrefix(b, []byte("\ufeff"))
	if utf8.Valid(b) {
		return string(b)
	}
	r := make([]rune, len(b))
	for i, c := range b {
		r[i] = rune(c)
	}
	return string(r)
}
