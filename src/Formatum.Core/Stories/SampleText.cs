using System.Collections.Frozen;

namespace Formatum.Core.Stories;

/// <summary>Words to see how a text will look before it is written: ours, of an invented pottery, by language.</summary>
public static class SampleText
{
    private static readonly FrozenDictionary<string, string[]> Texts = new Dictionary<string, string[]>
    {
        ["en"] =
        [
            "The kiln was lit at four in the morning, when the valley was still dark and the wind came from the north.",
            "By noon the first shelf had reached its heat. A bowl the colour of wet slate stood beside two jugs, and nobody could yet say which of the three "
                + "would keep its glaze.",
            "Clay remembers the hand. Press it once too often and it will bend there again in the fire, however smooth the rim looked on the wheel.",
            "We counted forty cups, twelve plates and one tall vase that leaned a little to the left; that one was sold first.",
        ],
        ["de"] =
        [
            "Um vier Uhr fr\u00fch wurde der Ofen angez\u00fcndet, als das Tal noch im Dunkeln lag und der Wind von Norden kam.",
            "Gegen Mittag hatte das erste Brett seine Hitze erreicht. Eine Schale in der Farbe von nassem Schiefer stand neben zwei Kr\u00fcgen, und "
                + "niemand wusste, welches der drei St\u00fccke seine Glasur behalten w\u00fcrde.",
            "Ton vergisst die Hand nicht. Wer einmal zu oft dr\u00fcckt, sieht die Stelle im Feuer wieder, so glatt der Rand auf der Scheibe auch war.",
        ],
        ["fr"] =
        [
            "On alluma le four \u00e0 quatre heures du matin, quand la vall\u00e9e \u00e9tait encore sombre et que le vent venait du nord.",
            "Vers midi, la premi\u00e8re planche avait atteint sa chaleur. Un bol couleur d\u2019ardoise mouill\u00e9e se tenait pr\u00e8s de deux "
                + "cruches, et personne ne savait encore lequel des trois garderait son \u00e9mail.",
            "L\u2019argile se souvient de la main. Pressez-la une fois de trop, et elle pliera l\u00e0 de nouveau dans le feu.",
        ],
        ["nl"] =
        [
            "Om vier uur in de ochtend werd de oven aangestoken, toen het dal nog donker was en de wind uit het noorden kwam.",
            "Tegen de middag had de eerste plank haar hitte bereikt. Een kom in de kleur van nat leisteen stond naast twee kannen, en niemand wist nog "
                + "welke van de drie haar glazuur zou houden.",
            "Klei onthoudt de hand. Wie een keer te vaak drukt, ziet die plek in het vuur terug.",
        ],
        ["it"] =
        [
            "Il forno fu acceso alle quattro del mattino, quando la valle era ancora buia e il vento veniva da nord.",
            "Verso mezzogiorno il primo ripiano aveva raggiunto il suo calore. Una ciotola color ardesia bagnata stava accanto a due brocche, e nessuno sapeva "
                + "ancora quale delle tre avrebbe tenuto lo smalto.",
        ],
        ["es"] =
        [
            "El horno se encendi\u00f3 a las cuatro de la ma\u00f1ana, cuando el valle segu\u00eda oscuro y el viento ven\u00eda del norte.",
            "Hacia el mediod\u00eda la primera tabla hab\u00eda alcanzado su calor. Un cuenco del color de la pizarra mojada estaba junto a dos "
                + "jarras, y nadie sab\u00eda a\u00fan cu\u00e1l de las tres guardar\u00eda su esmalte.",
        ],
    }.ToFrozenDictionary();

    /// <summary>The paragraphs of a language, over and over; English where there are none in it.</summary>
    /// <param name="language">The language, as BCP 47 has it.</param>
    public static IEnumerable<string> Paragraphs(string language)
    {
        string[] texts = Texts.GetValueOrDefault(language.Split('-')[0].ToLowerInvariant(), Texts["en"]);
        for (int i = 0; ; i++) yield return texts[i % texts.Length];
    }
}
