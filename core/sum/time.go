package sum

import (
	"math"
	"strconv"
	"strings"

	"capstan/core/words"
)

// Time reads a time of the film: seconds as Read does, or minutes and seconds with a colon, 1:07.40. It returns ms.
func Time(text string) (float64, error) {
	refused := func() (float64, error) { return 0, words.New("time.unreadable", strings.TrimSpace(text)) }
	m, s, parted := strings.Cut(strings.TrimSpace(text), ":")
	minutes := 0.0
	if parted {
		n, err := strconv.Atoi(strings.TrimSpace(m))
		if err != nil || n < 0 {
			return refused()
		}
		minutes = float64(n)
		if strings.Contains(s, ":") {
			return refused()
		}
	} else {
		s = m
	}
	v, err := Read(s, 0, "s")
	if err != nil || v < 0 || parted && v >= 60 || math.IsInf(v, 0) {
		return refused()
	}
	return (minutes*60 + v) * 1000, nil
}
