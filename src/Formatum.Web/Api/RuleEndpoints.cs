using System.Collections.Immutable;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>Fitting rules in the automation interface: made, changed, tried, put on frames, removed.</summary>
internal static class RuleEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapPost("/rules", async (int id, RuleBody body, PublicationStore store, HttpContext context) =>
        {
            var outcome = context.Told(await store.EditAsync(id, EditOf(null, body), context.Seen(body.Seen)));
            var rule = (FittingRule)outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.Rule).After!;
            return TypedResults.Created($"/api/publications/{id}/rules/{rule.Id}", RuleAnswer.Of(rule));
        }).WithSummary("Makes a fitting rule.");

        publication.MapPut("/rules/{ruleId:int}", async (int id, int ruleId, RuleBody body, PublicationStore store, HttpContext context) =>
            RuleAnswer.Of((context.Told(await store.EditAsync(id, EditOf(ruleId, body), context.Seen(body.Seen)))).Standing.Publication.Rules[ruleId]))
            .WithSummary("Puts a rule's settings in the place of those it had. With the revision last seen, refuses where somebody changed it since.");

        publication.MapPost("/rules/{ruleId:int}/impact", async (int id, int ruleId, RuleBody body, PublicationStore store, HeavyWork heavy,
            CancellationToken cancel) =>
        {
            var before = (await store.OpenAsync(id)).Publication;
            return await heavy.RunAsync(_ =>
            {
                var after = before.With(EditOf(ruleId, body).On(before));
                return ImpactAnswer.Of(Impact.Of(before, after), after);
            }, cancel);
        }).WithSummary("What putting these settings into the rule would do, without doing it.");

        publication.MapDelete("/rules/{ruleId:int}", async (int id, int ruleId, PublicationStore store, HttpContext context, int? instead = null,
            bool keepSettings = false) =>
        {
            context.Told(await store.EditAsync(id, new RemoveRule(ruleId, instead, keepSettings), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes a rule. Its frames and the rules based on it take another instead, or none; and keep its settings as their own, where asked.");

        publication.MapPost("/rules/{ruleId:int}/put", Put).WithSummary("Puts a rule on frames: by id, of a page, or of the whole publication.");

        publication.MapPut("/default-rule", async (int id, DefaultRuleBody body, PublicationStore store, HttpContext context) =>
        {
            context.Told(await store.EditAsync(id, new ChooseDefaultRule(body.RuleId), context.Seen(body.Seen)));
            return TypedResults.NoContent();
        }).WithSummary("Chooses the rule that everything else in the publication rests on.");
    }

    private static async Task<ImpactAnswer> Put(int id, int ruleId, PutRuleBody body, PublicationStore store, HeavyWork heavy, HttpContext context)
    {
        var before = (await store.OpenAsync(id)).Publication;
        ImmutableArray<int> frames = body.FrameIds is { } some ? [.. some] : FrameScope.FramesIn(before, body.Page, body.Which ?? FrameFilling.All);
        var outcome = context.Told(await store.EditAsync(id, new ChangeFrames { FrameIds = frames, RuleId = new(ruleId) }, context.Seen(body.Seen)));
        var after = outcome.Standing.Publication;
        return await heavy.RunAsync(_ => ImpactAnswer.Of(Impact.Of(before, after), after), context.RequestAborted);
    }

    private static DefineRule EditOf(int? ruleId, RuleBody body) => new()
    {
        RuleId = ruleId,
        Name = body.Name ?? "",
        Description = body.Description ?? "",
        BasedOnId = body.BasedOnId,
        LookId = body.LookId,
        Settings = body.ToSettings(),
    };
}
