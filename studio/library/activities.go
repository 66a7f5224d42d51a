package library

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"patientladder/core/activity"
	"patientladder/studio"
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
func Activities(ctx context.Context, a *studio.App, who studio.Who) (ActivitiesView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return ActivitiesView{}, err
	}
	own, err := r.Activities(ctx)
	if err != nil {
		return ActivitiesView{}, studio.Failed(err, "studio")
	}
	v := ActivitiesView{Activities: slices.Concat(own, activity.Bank()), Aims: []Aim{}}
	for _, s := range r.Graph.Sorted() {
		v.Aims = append(v.Aims, Aim{s.ID, s.Name})
	}
	for key, name := range activity.Aims {
		v.Aims = append(v.Aims, Aim{key, name})
	}
	slices.SortFunc(v.Aims, func(x, y Aim) int { return cmp.Or(strings.Compare(x.Name, y.Name), strings.Compare(x.Key, y.Key)) })
	return v, nil
}

// SaveActivity keeps an activity of the studio's own.
func SaveActivity(ctx context.Context, a *studio.App, who studio.Who, in activity.Activity) error {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return err
	}
	in.Own, in.Title = true, strings.TrimSpace(in.Title)
	if err := in.Check(r.Graph); err != nil {
		return studio.Refuse("The activity cannot be kept: %v.", err)
	}
	if slices.ContainsFunc(activity.Bank(), func(b activity.Activity) bool { return b.ID == in.ID }) {
		return studio.Refuse("That activity comes with the program; save yours under another name.")
	}
	return studio.Failed(r.SetActivity(ctx, in), "studio")
}

// DropActivity takes an activity of the studio's own away.
func DropActivity(ctx context.Context, a *studio.App, who studio.Who, id string) error {
	return studio.Failed(a.Store.In(who.Studio).DropActivity(ctx, id), "studio")
}
