package family

import (
	"context"
	"slices"
	"time"

	"patientladder/core/echo"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/skill"
	"patientladder/studio"
)

// A TrialView is a way to try a skill, and how far a student is in it.
type TrialView struct {
	echo.Trial
	Name   string     `json:"name" doc:"of the skill"`
	Level  int        `json:"level" doc:"the highest that was reached; 0 for never tried"`
	At     *time.Time `json:"at,omitempty" doc:"when it was tried last"`
	Rounds int        `json:"rounds"`
	Passed bool       `json:"passed"`
}

// A ListenView is what a student can listen to and answer.
type ListenView struct {
	Student string      `json:"student" doc:"first name; empty for anybody"`
	Trials  []TrialView `json:"trials"`
	Next    string      `json:"next" doc:"skill of the trial that comes next; empty for none"`
	atHome
}

// A CallView is a question.
type CallView struct {
	echo.Call
	atHome
}

// A CallAsk asks for a question of a round.
type CallAsk struct {
	Skill string    `json:"skill" maxLength:"60"`
	Bout  echo.Bout `json:"bout"`
	Seed  uint64    `json:"seed" maximum:"9007199254740991" doc:"the same seed asks the same"`
}

// A ReplyAsk answers it.
type ReplyAsk struct {
	CallAsk
	Reply echo.Reply `json:"reply"`
}

// A ReplyView is how it was answered.
type ReplyView struct {
	Verdict echo.Verdict `json:"verdict"`
	Bout    echo.Bout    `json:"bout" doc:"after it"`
	Keep    fact.Bodies  `json:"keep" doc:"to tell, when the round ends here"`
	atHome
}

// Listening shows what a student can listen to and answer; the empty student is anybody, with
// whatever instrument: what is of every one.
func Listening(ctx context.Context, a *studio.App, who studio.Who, student string) (ListenView, error) {
	if student == "" {
		r, err := a.Enter(ctx, who)
		if err != nil {
			return ListenView{}, err
		}
		return listening(r.Graph, instrument.Shared, func(string) bool { return false }, func(string) (TrialView, bool) { return TrialView{}, false }), nil
	}
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return ListenView{}, err
	}
	return listens(&p), nil
}

func listens(p *studio.Pupil) ListenView {
	knows := p.WayNow().Knows()
	passed := func(id string) bool {
		return p.Standing.Echoes[id].Passed || p.Standing.Probes[id].Outcome == fact.Pass || knows.Has(id)
	}
	v := listening(p.Graph, p.Plays.Family, passed, func(id string) (TrialView, bool) {
		e, tried := p.Standing.Echoes[id]
		return TrialView{Level: e.Level, At: &e.At, Rounds: e.Rounds}, tried
	})
	v.Student = p.FirstName
	return v
}

func listening(g skill.Graph, f instrument.Family, passed func(string) bool, stood func(string) (TrialView, bool)) ListenView {
	v := ListenView{Trials: []TrialView{}}
	for _, t := range echo.All(g) {
		if !t.Fits(f) {
			continue
		}
		one, _ := stood(t.Skill)
		one.Trial, one.Name, one.Passed = t, g.Name(t.Skill), passed(t.Skill)
		v.Trials = append(v.Trials, one)
	}
	if t, more := echo.Next(g, f, passed); more {
		v.Next = t.Skill
	}
	return v
}

// Call asks a question of a round.
func Call(ctx context.Context, a *studio.App, who studio.Who, in CallAsk) (CallView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return CallView{}, err
	}
	return call(r.Graph, in)
}

// Reply judges an answer. It keeps nothing.
func Reply(ctx context.Context, a *studio.App, who studio.Who, in ReplyAsk) (ReplyView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return ReplyView{}, err
	}
	return reply(r.Graph, in)
}

func trial(g skill.Graph, id string) (echo.Trial, error) {
	t, known := echo.Of(g, id)
	if !known || t.Kind == echo.PlayIn {
		return t, studio.Refuse("There is nothing to listen to for %q.", g.Name(id))
	}
	return t, nil
}

func call(g skill.Graph, in CallAsk) (CallView, error) {
	t, err := trial(g, in.Skill)
	if err != nil {
		return CallView{}, err
	}
	return CallView{Call: t.Ask(in.Bout.Level, in.Seed)}, nil
}

func reply(g skill.Graph, in ReplyAsk) (ReplyView, error) {
	t, err := trial(g, in.Skill)
	if err != nil {
		return ReplyView{}, err
	}
	verdict, err := t.Judge(t.Ask(in.Bout.Level, in.Seed), in.Reply)
	if err != nil {
		return ReplyView{}, studio.Refuse("The answer cannot be judged: %v.", err)
	}
	v := ReplyView{Verdict: verdict, Bout: t.After(in.Bout, verdict.Right)}
	v.Keep = fact.Bodies{fact.Echoed{Skill: in.Skill, Level: min(v.Bout.Level, len(t.Levels)), Asked: min(v.Bout.Asked, 1000), Right: min(v.Bout.Right, 1000), Passed: v.Bout.Passed}}
	return v, nil
}

// What is read at home is read in its language; empty is that of who asks.
type atHome struct{ language string }

// ReadIn is the language of the home.
func (h atHome) ReadIn() string { return h.language }

// FamilyListening shows what can be listened to and answered at home: what nobody has to judge.
func FamilyListening(ctx context.Context, a *studio.App, token string) (ListenView, error) {
	p, err := Enter(ctx, a, token)
	if err != nil {
		return ListenView{}, err
	}
	v := listens(&p.Pupil)
	v.atHome = atHome{p.Language}
	v.Trials = slices.DeleteFunc(v.Trials, func(t TrialView) bool { return t.Kind == echo.Sing || t.Kind == echo.PlayIn })
	if !slices.ContainsFunc(v.Trials, func(t TrialView) bool { return t.Skill == v.Next }) {
		v.Next = ""
		for _, t := range v.Trials {
			if !t.Passed && v.Next == "" {
				v.Next = t.Skill
			}
		}
	}
	return v, nil
}

// FamilyCall asks a question at home.
func FamilyCall(ctx context.Context, a *studio.App, token string, in CallAsk) (CallView, error) {
	p, err := Enter(ctx, a, token)
	if err != nil {
		return CallView{}, err
	}
	q, err := call(p.Graph, in)
	q.atHome = atHome{p.Language}
	return q, err
}

// FamilyReply judges an answer at home.
func FamilyReply(ctx context.Context, a *studio.App, token string, in ReplyAsk) (ReplyView, error) {
	p, err := Enter(ctx, a, token)
	if err != nil {
		return ReplyView{}, err
	}
	v, err := reply(p.Graph, in)
	v.atHome = atHome{p.Language}
	return v, err
}
