package media

import (
	"encoding/base64"
	"errors"
	"net/url"
	"strings"
)

// InAddress is what a data: address holds (RFC 2397).
func InAddress(address string) ([]byte, error) {
	head, data, ok := strings.Cut(strings.TrimPrefix(address, "data:"), ",")
	if !ok || len(data) > MaxBytes*4/3 {
		return nil, errors.New("no picture")
	}
	if !strings.HasSuffix(head, ";base64") {
		s, err := url.PathUnescape(data)
		return []byte(s), err
	}
	data = strings.Map(func(r rune) rune {
		if r == ' ' || r == '\n' || r == '\t' || r == '\r' {
			return -1
		}
		return r
	}, data)
	return base64.StdEncoding.DecodeString(data)
}
