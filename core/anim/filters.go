package anim

import (
	"bytes"
	"compress/zlib"
	"sync"
)

// Filters of rows (PNG, third edition, section 9.2), and the choice among them by the least sum of differences that is customary (12.7), as one
// more way to filter a picture.
const (
	filterNone = iota
	filterSub
	filterUp
	filterMean
	filterPaeth
	filterLeast
	filterWays
)

// filtered returns a picture of rows of bytes, n bytes a pixel, with each row filtered in a way and marked so.
func filtered(pix []byte, stride, n, way int) []byte {
	rows := len(pix) / stride
	out := make([]byte, 0, rows*(stride+1))
	zero := make([]byte, stride)
	before := zero
	line, best := make([]byte, stride), make([]byte, stride)
	for y := range rows {
		row := pix[y*stride : (y+1)*stride]
		if way < filterLeast {
			filterRow(line, row, before, n, way)
			out = append(append(out, byte(way)), line...)
		} else {
			least, chosen := -1, 0
			for k := filterNone; k < filterLeast; k++ {
				filterRow(line, row, before, n, k)
				sum := 0
				for _, v := range line {
					sum += int(max(int8(v), -int8(v)))
				}
				if least < 0 || sum < least {
					least, chosen = sum, k
					line, best = best, line
				}
			}
			out = append(append(out, byte(chosen)), best...)
		}
		before = row
	}
	return out
}

func filterRow(to, row, before []byte, n, way int) {
	switch way {
	case filterNone:
		copy(to, row)
		return
	case filterUp:
		for i, v := range row {
			to[i] = v - before[i]
		}
		return
	}
	for i, v := range row {
		var left, corner byte
		if i >= n {
			left, corner = row[i-n], before[i-n]
		}
		up := before[i]
		switch way {
		case filterSub:
			to[i] = v - left
		case filterMean:
			to[i] = v - byte((int(left)+int(up))/2)
		case filterPaeth:
			to[i] = v - paeth(left, up, corner)
		}
	}
}

// paeth is the one of left, up and corner that is nearest to left + up - corner.
func paeth(left, up, corner byte) byte {
	p := int(left) + int(up) - int(corner)
	a, b, c := magnitude(p-int(left)), magnitude(p-int(up)), magnitude(p-int(corner))
	switch {
	case a <= b && a <= c:
		return left
	case b <= c:
		return up
	}
	return corner
}

func magnitude(v int) int { return max(v, -v) }

// packed is the smallest zlib stream of a picture, whichever way its rows are filtered. Two are tried at a time, whatever there are of cores: each
// holds a copy of the picture.
func packed(pix []byte, stride, n int) ([]byte, error) {
	var mu sync.Mutex
	var work sync.WaitGroup
	var best []byte
	var failed error
	next, by := 0, 0
	for range 2 {
		work.Go(func() {
			for {
				mu.Lock()
				way := next
				next++
				mu.Unlock()
				if way >= filterWays {
					return
				}
				b, err := deflated(filtered(pix, stride, n, way))
				mu.Lock()
				if err != nil {
					failed = err
				} else if best == nil || len(b) < len(best) || len(b) == len(best) && way < by { // the same file each time
					best, by = b, way
				}
				mu.Unlock()
			}
		})
	}
	work.Wait()
	return best, failed
}

func deflated(data []byte) ([]byte, error) {
	var b bytes.Buffer
	z, err := zlib.NewWriterLevel(&b, zlib.BestCompression)
	if err == nil {
		_, err = z.Write(data)
	}
	if err == nil {
		err = z.Close()
	}
	return b.Bytes(), err
}
