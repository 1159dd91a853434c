package anim

import (
	"bytes"
	"cmp"
	"errors"
	"slices"
	"sync"
	"sync/atomic"

	"github.com/klauspost/compress/zlib"
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

// tried is how many ways of filtering are packed well, of those that come out smallest where all are packed quickly.
const tried = 2

// wellPacked is the level at which a picture is packed: 9 makes 1.5 % less and takes 3.5 times as long, since films are flat. (Ways of filtering
// that change from band to band, each packed quickly to choose, came to nothing: 0.99 to 1.01 of the best single one over the demo's films.)
const wellPacked = 8

// packed is a small zlib stream of a picture: each way of filtering is packed quickly, and the most promising well. Two are done at a time,
// whatever there are of cores: each holds a copy of the picture.
func packed(pix []byte, stride, n int) ([]byte, error) {
	var sizes [filterWays]int
	err := pairs(filterWays, func(way int) error {
		b, err := deflated(filtered(pix, stride, n, way), zlib.BestSpeed)
		sizes[way] = len(b)
		return err
	})
	if err != nil {
		return nil, err
	}
	ways := []int{}
	for way := range filterWays {
		ways = append(ways, way)
	}
	slices.SortStableFunc(ways, func(a, b int) int { return cmp.Compare(sizes[a], sizes[b]) })
	var out [tried][]byte
	err = pairs(tried, func(i int) (err error) {
		out[i], err = deflated(filtered(pix, stride, n, ways[i]), wellPacked)
		return
	})
	return slices.MinFunc(out[:], func(a, b []byte) int { return cmp.Compare(len(a), len(b)) }), err
}

// pairs does n things, two at a time.
func pairs(n int, do func(i int) error) error {
	var work sync.WaitGroup
	var next atomic.Int64
	var failed [2]error
	for worker := range failed {
		work.Go(func() {
			for i := int(next.Add(1)) - 1; i < n; i = int(next.Add(1)) - 1 {
				failed[worker] = errors.Join(failed[worker], do(i))
			}
		})
	}
	work.Wait()
	return errors.Join(failed[:]...)
}

func deflated(data []byte, level int) ([]byte, error) {
	var b bytes.Buffer
	z, err := zlib.NewWriterLevel(&b, level)
	if err == nil {
		_, err = z.Write(data)
	}
	if err == nil {
		err = z.Close()
	}
	return b.Bytes(), err
}
