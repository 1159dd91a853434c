package sound

import (
	"bytes"
	"encoding/binary"
	"html"
	"regexp"
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

// times are a line with two times: hours may be missing, and there may be a point or a comma before the thousandths.
var times = regexp.MustCompile(`^\s*(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})\s*-->\s*(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})(?:\s.*)?$`)

// marked is what is between words and is not one: tags of both formats, and places in braces.
var marked = regexp.MustCompile(`</?[A-Za-z0-9][^<>]{0,200}>|\{\\[^{}]{0,200}\}`)

// ReadSubtitles reads captions as SubRip and WebVTT (W3C) have them, from a file in UTF-8, in UTF-16 that says so, or else in Latin-1. What is not a caption
// (numbers, notes, styles) is passed over. A file without any is a *words.Fault.
func ReadSubtitles(file []byte) (s Subtitles, err error) {
	if len(file) > mostSubtitles {
		return s, words.New("caption.large", mostSubtitles>>20)
	}
	lines := strings.Split(strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(decoded(file)), "\n")
	for i := 0; i < len(lines); i++ {
		m := times.FindStringSubmatch(lines[i])
		if m == nil {
			continue
		}
		c := doc.Caption{From: moment(m[1:5]), To: moment(m[5:9])}
		var text []string
		for i+1 < len(lines) && strings.TrimSpace(lines[i+1]) != "" && !times.MatchString(lines[i+1]) {
			i++
			if t := strings.TrimSpace(html.UnescapeString(marked.ReplaceAllString(lines[i], ""))); t != "" {
				text = append(text, t)
			}
		}
		if i+1 < len(lines) && times.MatchString(lines[i+1]) && len(text) > 0 && numeral(text[len(text)-1]) {
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

// moment is a time of hours, minutes, seconds and a fraction, in ms.
func moment(of []string) int64 {
	n := func(s string) int64 {
		v, _ := strconv.ParseInt(s, 10, 64) // three digits at most, or none
		return v
	}
	return n(of[0])*3600000 + n(of[1])*60000 + n(of[2])*1000 + n((of[3] + "00")[:3])
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
