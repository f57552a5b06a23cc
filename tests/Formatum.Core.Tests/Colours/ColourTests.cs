using System.Text.Json;
using Formatum.Core.Colours;

namespace Formatum.Core.Tests.Colours;

public sealed class ColourTests
{
    /// <summary>Worked figures of WCAG 2.2's contrast ratio: #767676 is the lightest grey that reaches 4.5 on white, #949494 the lightest that reaches 3
    /// (WebAIM's
    /// and W3C's examples, from memory).</summary>
    [Theory]
    [InlineData("#000000", "#ffffff", 21)]
    [InlineData("#767676", "#ffffff", 4.54)]
    [InlineData("#777777", "#ffffff", 4.48)]
    [InlineData("#949494", "#ffffff", 3.03)]
    [InlineData("#ff0000", "#ffffff", 4.0)]
    public void Contrast_is_that_of_WCAG(string one, string other, double contrast)
    {
        Colour.Of(one).Shown.ContrastWith(Colour.Of(other).Shown).ShouldBe(contrast, 0.005);
        Colour.Of(other).Shown.ContrastWith(Colour.Of(one).Shown).ShouldBe(contrast, 0.005);
    }

    /// <summary>CSS Color 5, "naive conversion" of device-cmyk(): red = 1 - min(1, cyan * (1 - black) + black), by hand.</summary>
    [Theory]
    [InlineData(0, 0, 0, 1, "#000000")]
    [InlineData(0, 0, 0, 0, "#ffffff")]
    [InlineData(1, 0, 0, 0, "#00ffff")]
    [InlineData(0, 0.8, 1, 0, "#ff3300")]
    [InlineData(0.5, 0, 0.25, 0.2, "#66cc99")]
    public void Inks_show_as_CSS_has_them_without_a_profile(double c, double m, double y, double k, string shown) =>
        new CmykColour(c, m, y, k).Hex.ShouldBe(shown);

    [Fact]
    public void Grey_is_black_ink_alone() => new GreyColour(0.6).Shown.ShouldBe(new CmykColour(0, 0, 0, 0.6).Shown);

    [Theory]
    [InlineData("\"#2f6f4f\"")]
    [InlineData("{\"grey\":0.5}")]
    [InlineData("{\"cmyk\":[0,0.8,1,0]}")]
    [InlineData("{\"named\":12}")]
    public void It_is_kept_as_it_is_given(string json) => JsonSerializer.Serialize(JsonSerializer.Deserialize<Colour>(json)).ShouldBe(json);

    [Theory]
    [InlineData("\"red\"")]
    [InlineData("12")]
    [InlineData("{}")]
    [InlineData("{\"grey\":\"a\"}")]
    [InlineData("{\"cmyk\":[0,0,0]}")]
    [InlineData("{\"cmyk\":[0,0,0,null]}")]
    [InlineData("{\"named\":1.5}")]
    [InlineData("{\"grey\":1,\"named\":2}")]
    [InlineData("{\"lab\":[1,2,3]}")]
    public void What_is_no_colour_is_not_read(string json) => Should.Throw<JsonException>(() => JsonSerializer.Deserialize<Colour>(json));
}
