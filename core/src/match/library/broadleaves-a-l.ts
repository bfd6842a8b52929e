/** Broadleaved species, Acer to Liriodendron. Columns and codes: see `read-row.ts`. */
export const broadleavesAToL = `
Acer buergerianum|trident maple|Sapindaceae|6-10|5-8|mRd|lbml|5.5-7.5|p|-20|hmllml|-|ml|4,5|9,10|10,11|s|eef|a|aphids, verticillium wilt|East Asia|Small even street tree, good autumn colour.
Acer campestre|field maple|Sapindaceae|8-12|6-9|mRd|lbmm|6-8.5|p|-25|mhlmml|-|mm|4,5|9,10|10,11|s|eee|a|powdery mildew, aphids|Europe to Caucasus|Bears pruning, lime and town air.
Acer monspessulanum|Montpellier maple|Sapindaceae|6-10|5-8|sRd|lnhm|6-8.5|f|-18|hhllml|-|ml|4|9|10,11|s|eef|a|powdery mildew|Mediterranean|For dry stony places; slow at first.
Acer platanoides|Norway maple|Sapindaceae|15-20|10-15|mRd|mbmm|5.5-8|p|-35|mmhmml|-|ml|4|9,10|10|s|eee|a|tar spot, verticillium wilt, aphids|Europe|Shallow roots lift paving; seeds itself about in some regions.
Acer rubrum|red maple|Sapindaceae|12-18|9-13|fOd|myml|4.5-6.5|p|-35|mmmmml|-|mm|3,4|5,6|10|c|eef|s|yellows on lime, leafhoppers|Eastern North America|Asks acid soil; fine in wet ground.
Acer × freemanii|Freeman maple|Sapindaceae|12-18|8-12|fOd|myml|5-7|f|-32|mmmlml|-|ml|3|5|10|c|eef|s|leafhoppers|Garden hybrid|Between red and silver maple; narrow forks want early pruning.
Aesculus × carnea|red horse chestnut|Sapindaceae|10-15|8-12|sRd|mbmm|5.5-8|p|-25|mmmhmm|-|hl|5|9|-|s|eef|a|leaf blotch, leaf miner|Garden hybrid|Few conkers; seeds poisonous.
Albizia julibrissin|silk tree|Fabaceae|6-9|7-10|fSd|lbhm|5.5-8|f|-15|hlmmlm|-|hl|6,7,8|9,10|-|s|efh|s|fusarium wilt, psyllids|Persia to East Asia|Short lived; seeds itself about in warm climates.
Alnus cordata|Italian alder|Betulaceae|15-20|7-10|fKd|mymm|5.5-8.5|f|-20|mhmlhl|-|lm|2,3|9,10|-|s|eee|a|phytophthora|Southern Italy, Corsica|Grows on in poor, wet and made ground.
Alnus glutinosa|common alder|Betulaceae|12-20|7-10|fOd|hyll|5-7.5|f|-35|lhmmhl|-|lh|3|9,10|-|s|eee|a|phytophthora|Europe, North Africa|For wet ground only.
Amelanchier lamarckii|snowy mespilus|Rosaceae|5-8|4-7|mSd|mbml|5-7.5|p|-30|mmllll|-|hh|4|6,7|10|s|eee|a|fireblight|Eastern North America, naturalised in Europe|Flower, fruit for birds and autumn colour on a small tree.
Arbutus canariensis|Canary strawberry tree|Ericaceae|6-10|5-8|sRe|lnmm|5-7|p|-5|mhlmll|-|hh|9,10,11|10,11|-|s|efn|a|leaf spot|Macaronesia: Canary Islands|Peeling red bark; large edible fruit.
Arbutus unedo|strawberry tree|Ericaceae|5-8|5-7|sRe|lnhm|4.5-8|p|-13|hhlmll|-|hh|10,11,12|10,11|-|s|efn|a|leaf spot|Mediterranean, Atlantic coasts|Flower and fruit together in autumn; bears sea wind.
Betula nigra|river birch|Betulaceae|12-16|8-12|fOd|hyll|4.5-6.5|f|-35|hmmmml|-|lm|4|6|10|s|eef|s|yellows on lime|Eastern North America|The birch for warm and wet places.
Betula pendula|silver birch|Betulaceae|12-18|6-9|fWd|mbml|4-7|f|-40|lmmmhl|-|lh|4|8,9|10|s|eeh|s|borers where it is hot and dry|Europe to Siberia|Short lived in dry paving; strong pollen.
Brachychiton acerifolius|flame tree|Malvaceae|10-15|6-9|mKs|lnhm|5.5-7.5|f|-3|hmmmlm|-|mm|5,6|9|-|s|efn|s|scale|Eastern Australia|Flowers bare of leaves after dry springs; seed hairs irritate.
Brachychiton populneus|kurrajong|Malvaceae|8-14|6-10|mKe|lnhm|5.5-8|f|-7|hmmmlm|-|mm|5,6|9|-|s|efn|s|scale|Eastern Australia|Water stored in the stem: bears long drought; seed hairs irritate.
Camphora officinarum|camphor tree|Lauraceae|15-22|12-20|mRe|mbmm|4.5-7|f|-8|hmhmll|-|lm|5|10,11|-|s|eef|a|yellows on lime|East Asia|Strong surface roots; seeds itself about where warm and wet.
Carpinus betulus|hornbeam|Betulaceae|12-20|8-14|mOd|mbml|5-8|s|-28|lhlmml|-|lm|4|9,10|10|s|eef|a|few|Europe to Caucasus|Dense shade, bears pruning; keeps dry leaves when young.
Carpinus caroliniana|American hornbeam|Betulaceae|6-10|6-9|sSd|myll|5-7|s|-34|mhlmml|-|lm|4|9,10|10|s|ehh|s|few|Eastern North America|Small tree for shade and moist soil.
Catalpa bignonioides|Indian bean tree|Bignoniaceae|9-13|9-13|fRd|mbmm|5.5-7.5|f|-25|hlmhll|-|hl|6,7|10|-|s|eef|s|verticillium wilt|South-eastern United States|Brittle in wind; long pods.
Ceiba speciosa|silk floss tree|Malvaceae|12-18|9-14|fIs|lnhl|5.5-7.5|f|-4|hmhmll|t|hm|9,10|4|-|c|efn|s|few|South America|Stem set with thorns; large pink flowers.
Celtis australis|southern nettle tree|Cannabaceae|15-20|11-15|mRd|lbhm|5.5-8.5|f|-15|hhmmml|-|lh|4|9,10|10,11|s|eef|a|powdery mildew, gall mites|Mediterranean|Tough and long lived in dry towns.
Celtis occidentalis|common hackberry|Cannabaceae|12-18|10-15|mRd|lbhm|6-8|f|-38|hhmmml|-|lh|4,5|9,10|10|s|eef|s|gall psyllids, witches' broom|North America|Bears flood, drought and road salt.
Ceratonia siliqua|carob|Fabaceae|7-11|8-12|sSe|lnhh|6-8.5|f|-6|hhhhml|-|hm|9,10|8,9|-|d|ehn|s|scale, rodents gnaw roots|Mediterranean|Deep shade; pods fall only from female trees, male flowers smell.
Cercidiphyllum japonicum|katsura|Cercidiphyllaceae|10-16|8-13|mOd|hbll|5-6.8|p|-28|lmmlll|-|ll|4|10|10|d|eeh|s|leaf scorch in drought|Japan, China|Asks steady moisture; leaves smell of caramel.
Cercis canadensis|eastern redbud|Fabaceae|6-9|6-9|mSd|lbml|5-7.5|p|-30|mmllll|-|hl|4|9|10|s|ehh|s|canker, verticillium wilt|Eastern North America|Flowers on bare wood; short lived.
Cercis siliquastrum|Judas tree|Fabaceae|5-9|5-8|sRd|lnhm|6-8.5|f|-14|hmllll|-|hl|4|8,9|-|s|ehn|a|canker, psyllids|Eastern Mediterranean|For warm dry lime; dislikes transplanting when large.
Chionanthus retusus|Chinese fringe tree|Oleaceae|5-8|5-7|sRd|mbml|5-7.5|f|-22|hmllll|-|mm|5,6|9|-|d|efh|s|few|East Asia|White in late spring; fruit on female trees.
Cladrastis kentukea|yellowwood|Fabaceae|9-14|10-14|mRd|mbml|6-8|f|-32|mlllll|-|hl|6|9|10|s|ehh|s|weak forks|South-eastern United States|Bleeds when cut in spring; prune in summer.
Cornus mas|cornelian cherry|Cornaceae|4-7|4-6|sRd|mbml|5.5-8|p|-28|mmlmll|-|hh|2,3|8,9|10|s|eef|a|few|Southern Europe to Caucasus|Earliest flower for bees; edible fruit that stains.
Corylus colurna|Turkish hazel|Betulaceae|14-20|7-10|mKd|lbhm|5.5-8|f|-28|mhlmhl|-|lm|2,3|9,10|10|s|ehh|a|few|South-eastern Europe, Turkey|Narrow, firm, bears town air; nuts fall in good years.
Crataegus monogyna|hawthorn|Rosaceae|5-8|4-7|mRd|lbhm|5-8.5|p|-30|mhllml|t|hh|5|9,10|-|s|eee|a|fireblight|Europe, North Africa|Thorns; food and shelter for birds.
Crataegus × lavalleei|hybrid cockspur thorn|Rosaceae|5-7|4-6|mRd|lbhm|5.5-8|f|-26|mhllml|t|hh|5,6|10,11|11|s|eef|a|fireblight|Garden hybrid|Few thorns, fruit hangs into winter.
Diospyros virginiana|persimmon|Ebenaceae|10-16|7-10|mOd|lbhm|5.5-7.5|f|-30|hhmhll|-|mh|6|10,11|10|d|fhn|s|few|South-eastern United States|Soft fruit on female trees; plant males in streets.
Dracaena draco|dragon tree|Asparagaceae|5-8|4-7|sSe|lnhh|6-8|f|-2|hhlmll|-|mm|7,8|9,10|-|s|ehn|y|scale|Macaronesia|Branches only after flowering; stiff leaf tips at eye height while young.
Erica arborea|tree heath|Ericaceae|3-6|2-4|mIe|lnhm|4.5-6.5|p|-12|mmlllm|-|hm|3,4|7|-|s|ehn|a|root rot in wet soil|Mediterranean, Macaronesia, East Africa|Light canopy for poor acid ground.
Eucommia ulmoides|hardy rubber tree|Eucommiaceae|10-15|8-12|mRd|lbhm|5.5-7.5|f|-25|mmmlll|-|ll|4|9|-|d|eef|s|none known|China|Clean and little troubled.
Fagus sylvatica|beech|Fagaceae|20-28|14-20|sRd|mnll|5-7.5|s|-28|lmhmml|-|lm|5|9,10|10,11|s|ehh|a|phytophthora, bark disease|Europe|Thin bark scorches; no compacted ground.
Ficus rubiginosa|rusty fig|Moraceae|10-15|12-18|mSe|mbmh|5.5-7.5|f|-4|hhhhlm|-|lh|6|9,10|-|c|eef|s|few|Eastern Australia|Roots break paving: wide lawns only; sap irritates.
Frangula azorica|Azorean buckthorn|Rhamnaceae|5-9|4-6|mOs|mbll|4.5-6.5|p|-2|lmlmlm|-|mh|5,6|9,10|-|s|efn|a|few|Macaronesia: Azores|Native of moist hill woods; berries mildly poisonous.
Fraxinus angustifolia|narrow-leaved ash|Oleaceae|14-20|9-13|fRd|mbmm|5.5-8.5|f|-20|hmmmml|-|lm|2,3|9,10|10|s|eee|a|ash dieback, borers|Mediterranean|Grows fast; check plant health rules before ordering.
Fraxinus ornus|manna ash|Oleaceae|8-12|7-10|mRd|lbhm|6-8.5|f|-22|hmlmll|-|hm|5|9|10|s|eee|a|few, little ash dieback|Southern Europe, Turkey|White scented flowers; among the toughest small shade trees.
Fraxinus pennsylvanica|green ash|Oleaceae|15-20|10-15|fOd|myhm|5.5-8|f|-38|hmmmml|-|lm|4|9,10|10|d|eee|s|emerald ash borer, ash dieback|North America|Not where the borer is near.
Gleditsia triacanthos|honey locust|Fabaceae|13-20|10-15|fSd|lbhh|5.5-8.5|f|-32|hmmmll|t|mm|6|10|10|d|eee|s|webworm, canker|Central North America|Light shade; order thornless, podless kinds for streets.
Gymnocladus dioicus|Kentucky coffee tree|Fabaceae|14-20|10-15|sId|lbhm|6-8|f|-34|hmmmlm|-|ml|5,6|10|10|d|ehh|s|few|Central North America|Coarse and leggy while young; seeds poisonous, plant males.
Ilex aquifolium|holly|Aquifoliaceae|6-12|4-7|sKe|mbmm|4.5-8|s|-18|lhlmlm|t|hh|5|11,12|-|d|efn|a|leaf miner|Europe|Spiny leaves; berries on female trees, poisonous.
Ilex perado|island holly|Aquifoliaceae|5-9|4-6|sOe|mnml|4.5-7|s|-5|mhllll|-|hh|4,5|10,11|-|d|efn|a|leaf miner|Macaronesia|Native of the laurel woods; leaves hardly spiny.
Jacaranda mimosifolia|jacaranda|Bignoniaceae|9-14|9-13|mSs|lnhl|5.5-8|f|-4|hmmhll|-|hl|5,6|9|-|s|eef|s|honeydew of aphids|Argentina, Bolivia|Carpet of fallen flowers is slippery on pavements.
Koelreuteria paniculata|golden rain tree|Sapindaceae|8-11|8-11|mRd|lbhm|5.5-8.5|f|-26|hmlmll|-|hl|6,7|9,10|10|s|eef|s|coral spot|China, Korea|Yellow in summer; seeds itself about in places.
Lagerstroemia indica|crape myrtle|Lythraceae|4-7|3-6|mVd|lbhm|5-7.5|f|-18|hmllll|-|ml|7,8,9|10|10,11|s|eef|s|powdery mildew, scale|East Asia|Asks hot summers to flower; no topping.
Laurus azorica|Azorean laurel|Lauraceae|8-12|6-9|mOe|mbml|4.5-7|s|-3|mhmmll|-|mh|4|9,10|-|d|efn|a|few|Macaronesia: Azores|Native of the laurel woods; fruit for the woodpigeon.
Laurus nobilis|bay laurel|Lauraceae|6-11|5-8|mKe|lbhm|5-8.5|p|-10|hhmmll|-|mm|3,4|10|-|d|efn|a|psyllid, scale|Mediterranean|Bears pruning and wind; suckers at the base.
Liquidambar styraciflua|sweetgum|Altingiaceae|15-22|9-14|mKd|mbml|5-7|f|-25|hmhhll|-|lm|4,5|10,11|10,11|s|ehh|s|yellows on lime|South-eastern North America|Spiky fruit underfoot; strong surface roots.
Liriodendron tulipifera|tulip tree|Magnoliaceae|20-28|10-15|fOd|mnll|5-7.5|f|-30|mmmmll|-|hm|5,6|10|10|s|ehn|s|aphids, leaf drop in drought|Eastern North America|Large and thirsty; move it small.
`;
