package gather

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// played goes on handing over, turn by turn, until each player has begun at each passage, and counts the
// beats: what the arithmetic is checked against.
func played(beats, each, players, after int) (turns int) {
	passages := map[int]bool{}
	for at := 0; !passages[at]; at = (at + each) % beats {
		passages[at] = true
	}
	seen := map[[2]int]bool{}
	at := 0
	for k := 0; ; k++ {
		moved := 0
		if after > 0 {
			moved = k * each / (after * beats) // after so many whole rounds
		}
		seen[[2]int{(k + moved) % players, at}] = true
		at = (at + each) % beats
		if len(seen) == len(passages)*players {
			return k + 1
		}
	}
}

func TestHandingOnAgainstEnumeration(t *testing.T) {
	for beats := 4; beats <= 48; beats += 2 {
		for each := 1; each <= 12 && each <= beats; each++ {
			for players := 2; players <= 7; players++ {
				s, err := HandOver(beats, 4, each, players)
				require.NoError(t, err)
				turns := played(beats, each, players, s.After)
				assert.Equal(t, turns*each, s.All*beats, "%d beats, %d each, %d players: rounds until all have played all", beats, each, players)
				for _, r := range s.Rounds { // each round is the whole tune, without a gap
					at := 0
					for _, turn := range r.Turns {
						require.Equal(t, at, turn.From)
						require.LessOrEqual(t, turn.To-turn.From, each)
						at = turn.To
					}
					require.Equal(t, beats, at)
					assert.Equal(t, r.Starts, r.Turns[0].Player)
				}
			}
		}
	}
}

func TestWhoPlaysWhen(t *testing.T) {
	// 16 bars of four, every two bars, three players: eight passages, which three do not divide
	s, err := HandOver(64, 4, 8, 3)
	require.NoError(t, err)
	assert.Equal(t, 3, s.All)
	assert.False(t, s.Moves)
	assert.Equal(t, []int{0, 2, 1}, []int{s.Rounds[0].Starts, s.Rounds[1].Starts, s.Rounds[2].Starts})
	// four players meet two passages each for ever, unless the beginning moves on
	s, err = HandOver(64, 4, 8, 4)
	require.NoError(t, err)
	assert.True(t, s.Moves)
	assert.Equal(t, 1, s.After)
	assert.Equal(t, 4, s.All)
	assert.Equal(t, []int{0, 1, 2, 3}, []int{s.Rounds[0].Starts, s.Rounds[1].Starts, s.Rounds[2].Starts, s.Rounds[3].Starts})
	// a turn goes on over the end of the tune
	s, err = HandOver(10, 4, 4, 2)
	require.NoError(t, err)
	assert.Equal(t, []Turn{{0, 0, 4}, {1, 4, 8}, {0, 8, 10}}, s.Rounds[0].Turns)
	assert.Equal(t, Turn{0, 0, 2}, s.Rounds[1].Turns[0])
	for _, bad := range [][3]int{{0, 1, 2}, {8, 0, 2}, {8, 9, 2}, {8, 4, 1}, {2001, 4, 2}} {
		_, err := HandOver(bad[0], 4, bad[1], bad[2])
		assert.Error(t, err, "%v", bad)
	}
}

func TestWhatSuits(t *testing.T) {
	for _, c := range []struct {
		what                string
		beats, bar, players int
		each, rounds        int
	}{
		{"sixteen bars of four, three players: four bars each, four passages", 64, 4, 3, 16, 3},
		{"five players: two bars each", 64, 4, 5, 8, 5},
		{"eight bars of three, two players: the beginning moves whatever is chosen", 24, 3, 2, 12, 2},
	} {
		got := Suits(c.beats, c.bar, c.players)
		require.NotEmpty(t, got, c.what)
		assert.Equal(t, Suitable{c.each, c.rounds}, got[0], c.what)
		for _, one := range got {
			assert.Zero(t, c.beats%one.Each, c.what)
			assert.GreaterOrEqual(t, c.beats/one.Each, c.players, c.what+": everybody plays in a round")
		}
	}
	assert.Equal(t, []Suitable{{3, 0}}, Suits(3, 3, 5), "a tune shorter than the players are many")
}
