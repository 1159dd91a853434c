package export

import (
	"context"
	"os"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/words"
)

// Tried is told of each file that is made for a target: what it gives up last, and its bytes.
type Tried func(words string, bytes int64)

// makeWithin renders a film into a file of at most o.Target bytes at out, and returns by what plan. More and more is given up (delivery.Trials)
// until it fits: halving what is left, since each file has to be made whole to know its size.
func makeWithin(ctx context.Context, f *frame.Film, files Files, o Options, out string, progress func(done, all int64), tried Tried) (Options, error) {
	trials := o.Trials(delivery.MinSide)
	best, smallest := "", int64(0)
	defer func() {
		if best != "" {
			os.Remove(best)
		}
	}()
	plan := o
	try := func(i int) (bool, error) {
		file, err := makeAside(ctx, f, files, trials[i].Plan, out, progress)
		if err != nil {
			return false, err
		}
		info, err := os.Stat(file)
		if err != nil {
			return false, err
		}
		tried(trials[i].Words, info.Size())
		if smallest == 0 || info.Size() < smallest {
			smallest = info.Size()
		}
		if info.Size() > o.Target {
			return false, os.Remove(file)
		}
		if best != "" {
			os.Remove(best)
		}
		best, plan = file, trials[i].Plan
		return true, nil
	}
	fits, err := try(0)
	if err != nil {
		return plan, err
	}
	// Of those that fit, the first: it gives up least.
	for lo, hi := 1, len(trials)-1; !fits && lo <= hi; {
		i := (lo + hi) / 2
		done, err := try(i)
		if err != nil {
			return plan, err
		}
		if done {
			hi = i - 1
		} else {
			lo = i + 1
		}
	}
	if best == "" {
		return plan, words.New("export.target-missed", kilobytes(o.Target), kilobytes(smallest))
	}
	err = os.Rename(best, out)
	best = ""
	return plan, err
}

// kilobytes are whole ones, rounded up.
func kilobytes(n int64) int64 { return (n + 999) / 1000 }
