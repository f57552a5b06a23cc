using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>A check profile, in a request; what is left out stays as it is, or as under Offset.</summary>
public sealed record CheckProfileBody
{
    public string? Name { get; init; }

    /// <summary>How much kinds count; those that are left out stay as they are.</summary>
    public Dictionary<FindingKind, Severity>? Kinds { get; init; }

    /// <summary>In ppi; 0 for that of the set-up.</summary>
    public double? LeastPpi { get; init; }

    /// <summary>In ppi; 0 for that of the set-up.</summary>
    public double? WantedPpi { get; init; }

    /// <summary>In per cent, 100 to 400.</summary>
    public double? MostInk { get; init; }

    public Length? Bleed { get; init; }
    public Length? SafeDistance { get; init; }
    public Length? ThinnestLine { get; init; }
    public Length? SmallestType { get; init; }
    public long? Seen { get; init; }

    public CheckProfile Over(CheckProfile basis) => basis with
    {
        Name = Name ?? basis.Name,
        Kinds = Kinds is null ? basis.Kinds : [.. basis.Kinds.Where(k => !Kinds.ContainsKey(k.Kind)),
            .. Kinds.OrderBy(k => k.Key).Select(k => new KindSeverity(k.Key, k.Value))],
        LeastPpi = LeastPpi is null ? basis.LeastPpi : LeastPpi == 0 ? null : LeastPpi,
        WantedPpi = WantedPpi is null ? basis.WantedPpi : WantedPpi == 0 ? null : WantedPpi,
        MostInk = MostInk ?? basis.MostInk,
        Bleed = Bleed?.Points ?? basis.Bleed,
        SafeDistance = SafeDistance?.Points ?? basis.SafeDistance,
        ThinnestLine = ThinnestLine?.Points ?? basis.ThinnestLine,
        SmallestType = SmallestType?.Points ?? basis.SmallestType,
    };
}

/// <summary>A check profile; lengths in points, 0 for a resolution that is the set-up's. Those with an id below 0 come along with the program.</summary>
public sealed record CheckProfileAnswer(int Id, string Name, bool Chosen, IReadOnlyDictionary<FindingKind, Severity> Kinds, double LeastPpi, double WantedPpi,
    double MostInk, double Bleed, double SafeDistance, double ThinnestLine, double SmallestType)
{
    public static CheckProfileAnswer Of(Publication publication, CheckProfile p) => new(p.Id, p.Name, publication.Profile.Id == p.Id,
        Enum.GetValues<FindingKind>().ToDictionary(k => k, p.SeverityOf), p.LeastPpi ?? 0, p.WantedPpi ?? 0, p.MostInk, p.Bleed, p.SafeDistance,
        p.ThinnestLine, p.SmallestType);
}

/// <summary>Which profile a publication is checked by.</summary>
public sealed record ChosenProfileBody
{
    /// <summary>The profile's name.</summary>
    public required string Profile { get; init; }
    public long? Seen { get; init; }
}

/// <summary>What a publication is checked by, in the automation interface.</summary>
internal static class CheckProfileEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/check-profiles", async (int id, PublicationStore store) =>
        {
            var standing = await store.OpenAsync(id);
            return CheckProfile.All(standing.Publication).Select(p => CheckProfileAnswer.Of(standing.Publication, p));
        }).WithSummary("What a publication can be checked by: profiles that come along, and its own.");
        publication.MapPost("/check-profiles", async (int id, CheckProfileBody body, HttpContext context, PublicationStore store) =>
        {
            var start = new CheckProfile { Id = 0, Name = body.Name ?? throw new EditRefused("name", "A profile needs a name.") };
            var outcome = context.Told(await store.EditAsync(id, new DefineCheckProfile(body.Over(start)), context.Seen(body.Seen)));
            int made = outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.CheckProfile).Key.Id;
            return Results.Created($"/api/publications/{id}/check-profiles", CheckProfileAnswer.Of(outcome.Standing.Publication,
                outcome.Standing.Publication.CheckProfiles[made]));
        }).WithSummary("Makes a check profile.").Produces<CheckProfileAnswer>(StatusCodes.Status201Created);
        publication.MapPut("/check-profiles/{profileId:int}", async (int id, int profileId, CheckProfileBody body, HttpContext context,
            PublicationStore store) =>
        {
            var basis = (await store.OpenAsync(id)).Publication.CheckProfiles.GetValueOrDefault(profileId)
                ?? throw new NoSuchPart("profile", $"There is no check profile {profileId} among the publication's own.");
            var outcome = context.Told(await store.EditAsync(id, new DefineCheckProfile(body.Over(basis), profileId), context.Seen(body.Seen)));
            return CheckProfileAnswer.Of(outcome.Standing.Publication, outcome.Standing.Publication.CheckProfiles[profileId]);
        }).WithSummary("Changes a check profile of the publication's own.");
        publication.MapDelete("/check-profiles/{profileId:int}", async (int id, int profileId, HttpContext context, PublicationStore store) =>
        {
            context.Told(await store.EditAsync(id, new RemoveCheckProfile(profileId), context.Seen()));
            return Results.NoContent();
        }).WithSummary("Removes a check profile of the publication's own.").Produces(StatusCodes.Status204NoContent);
        publication.MapPut("/check/profile", async (int id, ChosenProfileBody body, HttpContext context, PublicationStore store) =>
        {
            var profile = CheckEndpoints.ProfileNamed((await store.OpenAsync(id)).Publication, body.Profile)
                ?? throw new EditRefused("profile", "Name the profile to check by.");
            var outcome = context.Told(await store.EditAsync(id, new ChooseCheckProfile(profile.Id), context.Seen(body.Seen)));
            return CheckProfileAnswer.Of(outcome.Standing.Publication, outcome.Standing.Publication.Profile);
        }).WithSummary("Chooses what the publication is checked by.");
    }
}
