package studio

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"patientladder/core/activity"
)

// An ActivitiesView is all games and studies that lessons draw on.
type ActivitiesView struct {
	Activities []activity.Activity `json:"activities" doc:"the studio's own first"`
	Aims       []Aim               `json:"aims" doc:"what an activity may be for, by name"`
}

// An Aim is what an activity is for.
type Aim struct {
	Key  string `json:"key"`
	Name string `json:"name"`
}

// Activities shows the bank and the studio's own.
func (a *App) Activities(ctx context.Context, who Who) (ActivitiesView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return ActivitiesView{}, err
	}
	own, err := r.Activities(ctx)
	if err != nil {
		return ActivitiesView{}, told(err, "studio")
	}
	v := ActivitiesView{Activities: slices.Concat(own, activity.Bank()), Aims: []Aim{}}
	for _, s := range r.graph.Sorted() {
		v.Aims = append(v.Aims, Aim{s.ID, s.Name})
	}
	for key, name := range activity.Aims {
		v.Aims = append(v.Aims, Aim{key, name})
	}
	slices.SortFunc(v.Aims, func(x, y Aim) int { return cmp.Or(strings.Compare(x.Name, y.Name), strings.Compare(x.Key, y.Key)) })
	return v, nil
}

// SaveActivity keeps an activity of the studio's own.
func (a *App) SaveActivity(ctx context.Context, who Who, in activity.Activity) error {
	r, err := a.enter(ctx, who)
	if err != nil {
		return err
	}
	in.Own, in.Title = true, strings.TrimSpace(in.Title)
	if err := in.Check(r.graph); err != nil {
		return invalid("The activity cannot be kept: %v.", err)
	}
	if slices.ContainsFunc(activity.Bank(), func(b activity.Activity) bool { return b.ID == in.ID }) {
		return invalid("That activity comes with the program; save yours under another name.")
	}
	return told(r.SetActivity(ctx, in), "studio")
}

// DropActivity takes an activity of the studio's own away.
func (a *App) DropActivity(ctx context.Context, who Who, id string) error {
	return told(a.store.In(who.Studio).DropActivity(ctx, id), "studio")
}
