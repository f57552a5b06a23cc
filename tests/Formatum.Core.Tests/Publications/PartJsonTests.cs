using System.Text.Json;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Publications;

/// <summary>Parts as they are kept, of today and of older versions.</summary>
public sealed class PartJsonTests
{
    private static readonly Frame Kept = new()
    {
        Id = 7,
        PageId = 3,
        Name = "Mug",
        Box = new(10, 20, 30, 40),
        Depth = 2,
        Look = new() { Background = "#dfe5d8", Border = new(1, "#2f6f4f"), Opacity = 0.5 },
        Own = new() { Fit = FitKind.Fit },
    };

    /// <summary>As it was written in its first version.</summary>
    private static string First(string json) => json.Replace("\"version\":2,", "", StringComparison.Ordinal)
        .Replace("\"background\"", "\"tone\"", StringComparison.Ordinal);

    [Fact]
    public void A_part_of_an_older_version_is_brought_up_to_date_as_it_is_read()
    {
        string today = PartJson.Write(Kept);
        today.ShouldStartWith("{\"version\":2,");
        PartJson.Read(PartKind.Frame, today).ShouldBe(Kept);
        First(today).ShouldContain("\"tone\":\"#dfe5d8\"");
        PartJson.Read(PartKind.Frame, First(today)).ShouldBe(Kept);
    }

    [Fact]
    public void Changes_of_an_older_version_are_too()
    {
        var changes = new Changes([new(Kept.Key, Kept, Kept with { Name = "Jug" })]);
        PartJson.ReadChanges(First(PartJson.Write(changes))).Items.ShouldBe(changes.Items);
    }

    [Theory]
    [InlineData("3")]
    [InlineData("0")]
    [InlineData("-1")]
    public void A_version_that_is_not_known_is_refused(string version) => Should.Throw<JsonException>(() =>
        PartJson.Read(PartKind.Frame, PartJson.Write(Kept).Replace("\"version\":2,", $"\"version\":{version},", StringComparison.Ordinal)))
        .Message.ShouldContain("newer version");
}
